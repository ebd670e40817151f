/** The circles traced on a picture: what each measures, and the part moved to it. */
import { place } from "../../api/commands";
import type { ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import type { Reference, ReferenceLies } from "./viewTypes";

interface HolesProps {
  module: ModuleView;
  reference: Reference;
  lies: ReferenceLies | undefined;
}

export function Holes({ module, reference, lies }: HolesProps) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  if (reference.circles.length === 0) return null;
  const names = new Map(design.functions.map((f) => [f.id, f]));
  return (
    <ul className="mt-3 border-t border-rule pt-1">
      {reference.circles.map((circle) => {
        const hole = lies?.holes.find((h) => h.id === circle.id);
        const fn = circle.function ? names.get(circle.function) : undefined;
        return (
          <li key={circle.id} className="border-b border-rule py-1.5">
            <p className="flex justify-between gap-2">
              <span className="truncate">{fn?.name ?? "no function"}</span>
              <span className="num">{hole ? `⌀ ${shown(hole.diameter)}` : "in a line"}</span>
            </p>
            {hole && (
              <p className={`num text-[11px] ${hole.rough ? "text-must" : "text-faint"}`}>
                x {shown(hole.x)} y {shown(hole.y)}
                <br />
                round within {shown(hole.residual, 2)}
                {hole.off_centre != null && (
                  <>
                    <br />
                    its hole is {shown(hole.off_centre, 2)} off
                  </>
                )}
              </p>
            )}
            <p className="mt-0.5 flex gap-1">
              {fn?.part && hole && (
                <Button
                  onClick={() =>
                    void send([
                      place(fn.id, module.id, Math.round(hole.x * 100) / 100, Math.round(hole.y * 100) / 100),
                    ])
                  }
                >
                  Move the part here <span className="sr-only">for {fn.name}</span>
                </Button>
              )}
              <Button
                look="quiet"
                onClick={() =>
                  void send([{ do: "remove_circle", reference: reference.id, circle: circle.id }])
                }
              >
                Remove
              </Button>
            </p>
          </li>
        );
      })}
    </ul>
  );
}
