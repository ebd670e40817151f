/** The three questions of a new panel. */
import type { NewMachine } from "../api/types";
import { ChoiceField, LengthField, TextField } from "../ui/fields";
import { KINDS } from "./kinds";
import type { Answers } from "./NewPicture";
import { PROCESS_NAMES, useTrade } from "./trade";

interface Props {
  answers: Answers;
  change: (changes: Partial<Answers>) => void;
}

export function NewQuestions({ answers, change }: Props) {
  const usual = useTrade()?.machines ?? [];
  const toggle = (kind: NewMachine["kind"]) => {
    const there = answers.machines.some((m) => m.kind === kind);
    const machine = usual.find((m) => m.kind === kind);
    if (there) change({ machines: answers.machines.filter((m) => m.kind !== kind) });
    else if (machine) change({ machines: [...answers.machines, machine] });
  };
  const size = (machine: NewMachine, changes: Partial<NewMachine>) =>
    change({ machines: answers.machines.map((m) => (m === machine ? { ...m, ...changes } : m)) });
  return (
    <div className="flex flex-col gap-5">
      <fieldset>
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">1</span>What is it?
        </legend>
        <div className="mt-2 grid grid-cols-2 gap-3">
          <TextField
            label="What is it called?"
            value={answers.name}
            needed
            onCommit={(name) => change({ name })}
          />
          <ChoiceField
            label="What kind of panel?"
            value={answers.kind}
            options={KINDS}
            onCommit={(kind) => change({ kind })}
          />
        </div>
      </fieldset>
      <fieldset>
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">2</span>What must it fit?
        </legend>
        <div className="mt-2 grid grid-cols-3 gap-3">
          <LengthField
            label="Opening, width"
            value={answers.width}
            least={10}
            onCommit={(width) => change({ width })}
          />
          <LengthField
            label="Opening, height"
            value={answers.height}
            least={10}
            onCommit={(height) => change({ height })}
          />
          <LengthField
            label="Free depth behind"
            value={answers.depth}
            least={1}
            onCommit={(depth) => change({ depth })}
          />
        </div>
      </fieldset>
      <fieldset className="min-h-40">
        <legend className="font-semibold">
          <span className="num pr-2 text-faint">3</span>What can you cut with?
        </legend>
        <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1">
          {PROCESS_NAMES.map(([kind, name]) => (
            <label key={kind} className="flex items-center gap-2">
              <input
                type="checkbox"
                disabled={usual.length === 0}
                checked={answers.machines.some((m) => m.kind === kind)}
                onChange={() => toggle(kind)}
              />
              {name}
            </label>
          ))}
        </div>
        {answers.machines.map((m) => (
          <div key={m.kind} className="mt-2 grid grid-cols-3 gap-3">
            <span className="self-end pb-2 text-[12px] text-faint">{m.name}, its bed</span>
            <LengthField
              label="Width"
              value={m.bed_width}
              least={10}
              onCommit={(bed_width) => size(m, { bed_width })}
            />
            <LengthField
              label="Height"
              value={m.bed_height}
              least={10}
              onCommit={(bed_height) => size(m, { bed_height })}
            />
          </div>
        ))}
      </fieldset>
    </div>
  );
}
