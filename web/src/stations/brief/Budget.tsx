/** Money and hours: the running estimate against a bought panel, and the log that corrects it. */
import { useState } from "react";
import { type BriefChanges, setBrief } from "../../api/commands";
import type { BriefView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, TextField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { money } from "../../ui/money";
import { NotThere } from "../../ui/NotThere";
import { useBrief } from "./useBrief";
import { TakeAway } from "../../ui/TakeAway";

const STAGES = [
  ["measure", "Measuring"],
  ["layout", "Layout"],
  ["cut", "Cutting"],
  ["finish", "Paint and finish"],
  ["wire", "Wiring"],
  ["prove", "Proving"],
] as const;

type Stage = (typeof STAGES)[number][0];

export function Budget() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const follows = useBrief();
  const { brief } = view.design;
  const set = (changes: BriefChanges) => void send([setBrief(changes)]);
  if (!follows.data) return <NotThere query={follows} words="Adding it up…" className="" />;
  const { estimate } = follows.data;
  return (
    <section aria-label="Money and hours">
      <Money estimate={estimate} currency={brief.currency} />
      <div className="mt-3 grid grid-cols-2 gap-2.5">
        <FigureField
          label="Price of a bought one"
          unit={brief.currency}
          value={brief.bought_price == null ? null : brief.bought_price / 100}
          most={1e7}
          onEmpty={() => set({ bought_price: null })}
          onCommit={(price) => set({ bought_price: Math.round(price * 100) })}
        />
        <TextField
          label="Currency, three letters"
          value={brief.currency}
          needed
          onCommit={(currency) => set({ currency: currency.toUpperCase() })}
        />
      </div>
      <p className="mt-2">
        <a className="text-petrol underline" href={`/api/designs/${view.id}/parts/shopping.csv`} download>
          Shopping list as CSV
        </a>
      </p>
      <HoursTable estimate={estimate} />
      <LogForm controls={estimate.controls} />
      <Log />
    </section>
  );
}

type Estimate = BriefView["estimate"];

function Money({ estimate, currency }: { estimate: Estimate; currency: string }) {
  const rows: [string, string][] = [
    ["Parts to buy, new", money(estimate.parts, currency)],
    [
      "the same, used where there are any",
      `${money(estimate.parts_used_low)} to ${money(estimate.parts_used_high, currency)}`,
    ],
    ["Sheets to buy", money(estimate.sheets, currency)],
    ["Total", money(estimate.money, currency)],
  ];
  const own = estimate.saved;
  return (
    <>
      <h3 className="text-[12px]">Money</h3>
      <dl className="mt-1">
        {rows.map(([what, sum]) => (
          <div key={what} className="flex justify-between border-t border-rule py-1">
            <dt className={what === "Total" ? "font-semibold" : ""}>{what}</dt>
            <dd className="num">{sum}</dd>
          </div>
        ))}
      </dl>
      {own != null && (
        <p className="mt-1 text-[12px]">
          {own >= 0 ? "Saves " : "Costs "}
          <b className="num">{money(Math.abs(own), currency)}</b>{" "}
          {own >= 0 ? "against a bought one" : "more than a bought one"}
          {estimate.saved_an_hour != null && (
            <>
              , <span className="num">{money(estimate.saved_an_hour, currency)}</span> for each of{" "}
              <span className="num">{shown(estimate.hours, 0)}</span> hours
            </>
          )}
          .
        </p>
      )}
    </>
  );
}

function HoursTable({ estimate }: { estimate: Estimate }) {
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

function LogForm({ controls }: { controls: number }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [stage, setStage] = useState<Stage>("wire");
  const [hours, setHours] = useState(1);
  const [covered, setCovered] = useState(Math.max(1, Math.min(10, controls)));
  return (
    <div className="mt-3 grid grid-cols-[minmax(0,2fr)_minmax(0,1fr)_minmax(0,1fr)_auto] items-end gap-2">
      <ChoiceField label="Spent on" value={stage} options={STAGES} onCommit={setStage} />
      <FigureField label="Hours" value={hours} least={0.01} most={10000} onCommit={setHours} />
      <FigureField label="For controls" value={covered} whole least={1} most={10000} onCommit={setCovered} />
      <Button
        className="mb-[3px]"
        onClick={() => void send([{ do: "log_hours", stage, hours, controls: covered, note: "" }])}
      >
        Log hours
      </Button>
    </div>
  );
}

function Log() {
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
