/** The selected function: what it is called, what it needs, and the part chosen for it. */
import { Link } from "wouter";
import { editFunction, removeFunction } from "../../api/commands";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { ChoiceField, TextField } from "../../ui/fields";

const WEIGHTS = [
  ["normal", "Everyday"],
  ["guarded", "Guarded, cannot be undone"],
  ["emergency", "Emergency"],
] as const;

const ROLES = [
  ["", "Not declared yet"],
  ["real", "Real: hard-wired, only reported here"],
  ["theatrical", "For show"],
  ["power", "The power switch"],
] as const;

export function FunctionSheet({ fn }: { fn: Fn }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const part = design.parts.find((p) => p.id === fn.part);
  const edit = (changes: Parameters<typeof editFunction>[1]) => void send([editFunction(fn.id, changes)]);
  const stop = fn.weight === "emergency" || part?.family === "emergency";
  return (
    <section aria-label="Selected function" className="mb-5 rounded border border-rule bg-sheet p-3.5">
      <h2 className="mb-2 flex justify-between text-[13px]">
        <span className="truncate">{fn.name}</span>{" "}
        <span className="num font-normal text-faint">{fn.id}</span>
      </h2>
      <div className="grid grid-cols-2 gap-2.5">
        <TextField label="Name" value={fn.name} needed onCommit={(name) => edit({ name })} />
        <TextField label="Group" value={fn.group} onCommit={(group) => edit({ group })} />
        <TextField label="Control or light wanted" value={fn.want} onCommit={(want) => edit({ want })} />
        <TextField
          label="Positions, a word each"
          value={fn.positions.join(", ")}
          hint="UP, DOWN"
          onCommit={(text) => edit({ positions: text ? text.split(",").map((word) => word.trim()) : [] })}
        />
        <ChoiceField
          label="Weight"
          value={fn.weight}
          options={WEIGHTS}
          onCommit={(weight) => edit({ weight })}
        />
        {stop && (
          <ChoiceField
            label="This emergency stop is"
            value={fn.stop_role ?? ""}
            options={ROLES}
            onCommit={(role) => role && edit({ stop_role: role })}
          />
        )}
      </div>
      {stop && (
        <p className="mt-2 border-l-[3px] border-stop pl-2.5 text-[12px]/[16px]">
          A real emergency stop breaks the power through its own hard-wired contact. It never passes a
          microcontroller.
        </p>
      )}
      <div className="mt-3 flex items-center gap-2">
        <Link
          href={`/d/${id}/parts?sel=${fn.id}`}
          className="inline-flex min-h-[26px] items-center rounded border border-ink bg-ink px-2 text-[12px] text-sheet"
        >
          {part ? `Part: ${part.name}` : "Choose a part"}
        </Link>
        <Button
          look="quiet"
          onClick={() => {
            useSession.getState().select([]);
            void send([removeFunction(fn.id)]);
          }}
        >
          Remove the function
        </Button>
      </div>
    </section>
  );
}
