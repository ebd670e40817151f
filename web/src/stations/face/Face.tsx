/** Face: the panel at true proportions, the tray beside it. */
import { useMemo, useState } from "react";
import { place } from "../../api/commands";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Board } from "./Board";
import { freeSpot } from "./freeSpot";
import { Tray } from "./Tray";

export default function Face() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const wanted = useSession((s) => s.panel);
  const set = useSession((s) => s.set);
  const panel = view.panels.find((p) => p.id === wanted) ?? view.panels[0];
  const [carried, setCarried] = useState<Fn | null>(null);
  const waiting = useMemo(
    () => view.design.functions.filter((f) => f.place == null),
    [view.design.functions],
  );
  if (!panel) {
    return <p className="p-6 text-faint">This design has no plate yet. Add one at Brief.</p>;
  }
  const placeNext = () => {
    const { selection } = useSession.getState();
    const ready = waiting.filter((f) => f.part != null);
    const next = ready.find((f) => selection.includes(f.id)) ?? ready[0];
    if (!next) return;
    const spot = freeSpot(view, panel, next);
    void changes.send([place(next.id, panel.id, spot.x, spot.y)]).then((kept) => {
      if (kept) useSession.getState().select([next.id]);
    });
  };
  return (
    <div className="grid h-full grid-cols-[188px_minmax(0,1fr)]">
      <Tray
        waiting={waiting}
        total={view.design.functions.length}
        onCarry={setCarried}
        onPlaceNext={placeNext}
      />
      <div className="flex min-w-0 flex-col">
        <div role="tablist" aria-label="Modules" className="flex h-9 items-end gap-4 px-4 text-[12px]">
          {view.panels.map((p) => (
            <button
              key={p.id}
              type="button"
              role="tab"
              aria-selected={p.id === panel.id}
              className={`max-w-48 truncate border-b-2 pb-0.5 ${p.id === panel.id ? "border-petrol font-semibold" : "border-transparent text-faint hover:text-ink"}`}
              onClick={() => set({ panel: p.id, selection: [] })}
            >
              {p.name}
            </button>
          ))}
        </div>
        <Board
          key={panel.id}
          panel={panel}
          carried={carried}
          onDropped={() => setCarried(null)}
          onPlaceNext={placeNext}
        />
      </div>
    </div>
  );
}
