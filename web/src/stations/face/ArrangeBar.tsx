/** What can be done with the selected parts at once; folded to its first tools until opened. */
import { useState } from "react";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { ACTIONS, placedSelection } from "./arrange";

const FIRST = ["row", "align-y", "align-x", "distribute-x", "mirror", "swap", "pair", "lock", "copy"];

export function ArrangeBar({ here }: { here: readonly Fn[] }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const selection = useSession((s) => s.selection);
  const [all, setAll] = useState(false);
  const chosen = here.filter((f) => selection.includes(f.id));
  if (chosen.length === 0) return null;
  const fits = ACTIONS.filter((a) => a.least <= chosen.length && (all || FIRST.includes(a.id)));
  const locked = chosen.every((f) => f.locked);
  return (
    <div
      role="toolbar"
      aria-label="Arrange the selected parts"
      data-board-tools=""
      className="absolute bottom-2 left-3 flex max-w-[calc(100%-190px)] flex-wrap gap-1"
      onPointerDown={(event) => event.stopPropagation()}
    >
      {fits.map((action) => (
        <button
          key={action.id}
          type="button"
          title={action.title}
          className="rounded border border-rule bg-sheet px-1.5 py-0.5 text-[11px] hover:border-petrol"
          onClick={() => void send(action.commands(placedSelection(here), here))}
        >
          {action.id === "lock" && locked ? "Unlock" : action.words}
        </button>
      ))}
      {chosen.length > 1 && (
        <button
          type="button"
          aria-expanded={all}
          className="rounded border border-rule bg-card px-1.5 py-0.5 text-[11px] text-faint hover:text-ink"
          onClick={() => setAll(!all)}
        >
          {all ? "fewer" : "more…"}
        </button>
      )}
    </div>
  );
}
