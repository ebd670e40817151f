/** Procedures: named orders of work, such as “shut down”, drawn as the sweep of a hand. */
import type { ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { TextField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { useViews } from "./useViews";

export function Sweeps({ module }: { module: ModuleView }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const selection = useSession((s) => s.selection);
  const seen = useViews(module.id, true);
  const steps = selection.filter((s) => design.functions.some((f) => f.id === s && f.place));
  const names = new Map(design.functions.map((f) => [f.id, f.name]));
  const zone = seen.data?.zones.length ?? 0;
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-3.5 text-[12px]">
      <p className="text-faint">
        Dashed: the room a finger needs. Amber: guards with their swing.{" "}
        {zone
          ? "Blue: what the free hand reaches."
          : "Say at Brief where the eye is, to see what the hand reaches."}
      </p>
      <h3 className="mt-4 text-[12px]">Sweeps of a hand</h3>
      <Button
        className="mt-1"
        disabled={steps.length < 2}
        onClick={() =>
          void send([
            {
              do: "add_procedure",
              name: "Shut down",
              steps,
            },
          ])
        }
      >
        {steps.length < 2 ? "Select its controls in their order" : `A sweep over these ${steps.length}`}
      </Button>
      {design.procedures.map((p) => {
        const sweep = seen.data?.sweeps.find((s) => s.procedure === p.id);
        const odd = sweep?.steps.filter((s) => s.odd).length ?? 0;
        return (
          <div key={p.id} role="group" aria-label={p.name} className="mt-3 border-t border-rule pt-2">
            <div className="grid grid-cols-[minmax(0,1fr)_20px] items-end gap-1">
              <TextField
                label="Sweep"
                value={p.name}
                needed
                onCommit={(name) => void send([{ do: "edit_procedure", procedure: p.id, name }])}
              />
              <TakeAway
                what={p.name}
                onTake={() => void send([{ do: "remove_procedure", procedure: p.id }])}
              />
            </div>
            <ol className="mt-1">
              {p.steps.map((step, n) => (
                <li key={step} className="truncate">
                  <span className="num pr-1.5 text-faint">{n + 1}</span>
                  {names.get(step)}
                </li>
              ))}
            </ol>
            {sweep && (
              <p className={sweep.broken.length || odd ? "text-judge" : "text-ok"}>
                {sweep.broken.length || odd
                  ? `${sweep.broken.length} jumps, ${odd} pointing another way`
                  : "One sweep, all the same way when off"}
              </p>
            )}
          </div>
        );
      })}
    </div>
  );
}
