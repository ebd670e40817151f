/** Hours: a guess a control until the builder's own log replaces it. */
import { useState } from "react";
import type { BriefView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, understood } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { TakeAway } from "../../ui/TakeAway";

type Estimate = BriefView["estimate"];

const STAGES = [
  ["measure", "Measuring"],
  ["layout", "Layout"],
  ["cut", "Cutting"],
  ["finish", "Paint and finish"],
  ["wire", "Wiring"],
  ["prove", "Proving"],
] as const;

type Stage = (typeof STAGES)[number][0];

export function HoursTable({ estimate }: { estimate: Estimate }) {
  return (
    <>
      <h3 className="mt-5 text-[12px]">
        Hours for {estimate.controls} controls{" "}
        <span className="font-normal text-faint">our guess until you log yours</span>
      </h3>
      <table className="mt-1 w-full border-collapse text-left text-[12px]">
        <thead>
          <tr className="text-[11px] text-faint">
            <th className="py-1 font-normal">stage</th>
            <th className="py-1 text-right font-normal">each, h</th>
            <th className="py-1 text-right font-normal">total</th>
            <th className="py-1 text-right font-normal">spent</th>
          </tr>
        </thead>
        <tbody>
          {estimate.stages.map((s) => (
            <tr key={s.stage} className="border-t border-rule">
              <td className="py-1">
                {STAGES.find(([key]) => key === s.stage)?.[1]}{" "}
                {s.logged && <span className="text-ok">from your log</span>}
              </td>
              <td className="num py-1 text-right">{shown(s.each, 2)}</td>
              <td className="num py-1 text-right">{shown(s.total)}</td>
              <td className="num py-1 text-right">{s.spent ? shown(s.spent) : "–"}</td>
            </tr>
          ))}
          <tr className="border-t border-rule font-semibold">
            <td className="py-1">Total</td>
            <td />
            <td className="num py-1 text-right">{shown(estimate.hours)}</td>
            <td className="num py-1 text-right">{shown(estimate.spent)}</td>
          </tr>
        </tbody>
      </table>
    </>
  );
}

export function LogForm({ controls }: { controls: number }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [stage, setStage] = useState<Stage>("wire");
  const [hours, setHours] = useState(1);
  const [covered, setCovered] = useState(Math.max(1, Math.min(10, controls)));
  const log = async (form: Element | null) => {
    if (await understood(form)) void send([{ do: "log_hours", stage, hours, controls: covered, note: "" }]);
  };
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)_minmax(0,1fr)_auto] items-start gap-2">
      <ChoiceField label="Spent on" value={stage} options={STAGES} onCommit={setStage} />
      <FigureField label="Hours" value={hours} least={0.01} most={10000} onCommit={setHours} />
      <FigureField label="Controls" value={covered} whole least={1} most={10000} onCommit={setCovered} />
      <Button className="mt-[23px]" onClick={(event) => void log(event.currentTarget.parentElement)}>
        Log hours
      </Button>
    </div>
  );
}

export function Log() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const { hours } = view.design.workshop;
  if (hours.length === 0) return null;
  return (
    <ul className="mt-2 text-[12px]">
      {hours.map((h) => (
        <li key={h.id} className="flex items-center justify-between border-t border-rule py-0.5">
          <span>
            {STAGES.find(([key]) => key === h.stage)?.[1]}, {h.controls} controls
          </span>
          <span className="flex items-center gap-2">
            <span className="num">{shown(h.hours)} h</span>
            <TakeAway
              what={`${shown(h.hours)} hours`}
              onTake={() => void send([{ do: "remove_from_workshop", kind: "hours", id: h.id }])}
            />
          </span>
        </li>
      ))}
    </ul>
  );
}
