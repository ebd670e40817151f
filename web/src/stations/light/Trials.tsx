/** The log of lamps that were lit before the rest was bought: volts, current, how it looked. */
import { useState } from "react";
import type { Command } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, TextField, understood } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { TakeAway } from "../../ui/TakeAway";

type Said = Omit<Extract<Command, { do: "log_trial" }>, "do">;
type Verdict = Said["verdict"];

const VERDICTS: readonly (readonly [Verdict, string])[] = [
  ["right", "as wanted"],
  ["dim", "too dim"],
  ["bright", "too bright"],
  ["colour", "another colour"],
];

export function Trials() {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const lit = design.parts.filter((part) => part.lines.some((line) => line.does === "lamp"));
  const names = new Map(design.parts.map((part) => [part.id, part.name]));
  return (
    <section aria-label="Trials of lamps" className="border-t border-rule pb-2">
      <h3 className="px-3.5 pt-2.5 pb-1 text-[13px] font-semibold">Trials</h3>
      {design.trials.map((trial) => (
        <div key={trial.id} className="flex items-start gap-2 border-t border-rule py-1.5 pr-2 pl-3.5">
          <p className="min-w-0 flex-1">
            {names.get(trial.part) ?? trial.part}
            <span className="num block text-[11px] text-faint">
              {shown(trial.volts)} V, {shown(trial.milliamps, 0)} mA
            </span>
            <span className={`block text-[11px] ${trial.verdict === "right" ? "text-ok" : "text-judge"}`}>
              {VERDICTS.find(([key]) => key === trial.verdict)?.[1]}
              {trial.note && `: ${trial.note}`}
            </span>
          </p>
          <TakeAway
            what={`the trial of ${names.get(trial.part) ?? trial.part}`}
            onTake={() => void send([{ do: "remove_trial", trial: trial.id }])}
          />
        </div>
      ))}
      {lit.length > 0 && <Entry parts={lit} onLog={(said) => void send([{ do: "log_trial", ...said }])} />}
    </section>
  );
}

interface EntryProps {
  parts: readonly { id: string; name: string }[];
  onLog: (said: Said) => void;
}

function Entry({ parts, onLog }: EntryProps) {
  const [said, setSaid] = useState<Partial<Said>>({ verdict: "right", note: "" });
  const change = (changes: Partial<Said>) => setSaid({ ...said, ...changes });
  const part = said.part ?? parts[0]?.id ?? "";
  const { volts, milliamps } = said;
  return (
    <div className="grid grid-cols-2 gap-2 px-3.5 pt-2">
      <div className="col-span-2">
        <ChoiceField
          label="Lamp tried"
          value={part}
          options={parts.map((p) => [p.id, p.name] as const)}
          onCommit={(next) => change({ part: next })}
        />
      </div>
      <FigureField
        label="At"
        unit="V"
        value={volts ?? null}
        needed
        least={0.1}
        most={400}
        onCommit={(next) => change({ volts: next })}
      />
      <FigureField
        label="Current"
        unit="mA"
        value={milliamps ?? null}
        needed
        least={0.1}
        most={20000}
        onCommit={(next) => change({ milliamps: next })}
      />
      <ChoiceField
        label="It looked"
        value={said.verdict ?? "right"}
        options={VERDICTS}
        onCommit={(next) => change({ verdict: next })}
      />
      <TextField label="Note" value={said.note ?? ""} onCommit={(next) => change({ note: next })} />
      <Button
        onClick={(event) =>
          void understood(event.currentTarget.parentElement).then((fine) => {
            if (!fine || volts === undefined || milliamps === undefined) return;
            onLog({ part, volts, milliamps, verdict: said.verdict ?? "right", note: said.note ?? "" });
            setSaid({ part, verdict: "right", note: "" });
          })
        }
      >
        Log it
      </Button>
    </div>
  );
}
