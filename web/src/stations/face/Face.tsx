/** Face: the panel at true proportions with the views over it; beside it the tray, the words, pictures and sweeps. */
import { useMemo } from "react";
import { answered, api } from "../../api/client";
import { place } from "../../api/commands";
import { type Changes, useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Tabs } from "../../ui/Tabs";
import { Board } from "./Board";
import { Pictures } from "./Pictures";
import { ALL, useFace, VIEWS } from "./store";
import { Sweeps } from "./Sweeps";
import { Tray } from "./Tray";
import { LegendsSide } from "./LegendsSide";

/** Put a part down where the core finds room for it, and select it. */
async function putDown(design: string, module: string, fn: string, changes: Changes): Promise<void> {
  const { select, set } = useSession.getState();
  try {
    const base = await changes.settled();
    const spot = await answered(
      api.POST("/api/designs/{design_id}/face/free-spot", {
        params: { path: { design_id: design } },
        body: { base, function: fn, module },
      }),
    );
    const kept = await changes.send([place(fn, module, spot.x, spot.y)]);
    if (!kept) return;
    select([fn]);
    if (!spot.free) set({ notice: "Nowhere on this module is free; it is where it is least in the way" });
  } catch (error) {
    set({ notice: error instanceof Error ? error.message : "That did not work" });
  }
}

export default function Face() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const wanted = useSession((s) => s.module);
  const set = useSession((s) => s.set);
  const face = useFace();
  const all = wanted === ALL && view.modules.length > 1;
  const module = view.modules.find((p) => p.id === wanted) ?? view.modules[0];
  const waiting = useMemo(
    () => view.design.functions.filter((f) => f.place == null && f.state !== "alias"),
    [view.design.functions],
  );
  if (!module) {
    return <p className="p-6 text-faint">This design has no plate yet. Add one at Brief.</p>;
  }
  const placeNext = () => {
    const { selection } = useSession.getState();
    const ready = waiting.filter((f) => f.part != null);
    const next = ready.find((f) => selection.includes(f.id)) ?? ready[0];
    if (!next) return;
    void putDown(view.id, module.id, next.id, changes);
  };
  const more = face.view === "reference" ? "Picture" : face.view === "hands" ? "Sweeps" : null;
  const side = face.side === "more" && !more ? "tray" : face.side;
  return (
    <div className="grid h-full grid-cols-[204px_minmax(0,1fr)] max-[900px]:grid-cols-[136px_minmax(0,1fr)]">
      <div className="flex min-h-0 flex-col border-r border-rule bg-sheet">
        <Tabs
          label="Beside the panel"
          className="h-auto min-h-9 flex-wrap px-3.5!"
          tabs={[["tray", "Tray"], ["words", "Legends"], ...(more ? ([["more", more]] as const) : [])]}
          now={side}
          onChange={(next) => face.set({ side: next })}
        />
        {side === "tray" && (
          <Tray waiting={waiting} total={view.design.functions.length} onPlaceNext={placeNext} />
        )}
        {side === "words" && <LegendsSide module={module} />}
        {side === "more" && face.view === "reference" && <Pictures module={module} />}
        {side === "more" && face.view === "hands" && <Sweeps module={module} />}
      </div>
      <div className="flex min-w-0 flex-col">
        <div className="flex flex-wrap items-end justify-between">
          <Tabs
            label="Views"
            tabs={VIEWS}
            now={face.view}
            onChange={(next) =>
              face.set({
                view: next,
                picking: null,
                picked: [],
                side: next === "reference" || next === "hands" ? "more" : "tray",
              })
            }
          />
          {view.modules.length > 1 && (
            <Tabs
              label="Modules"
              tabs={[[ALL, "All"] as const, ...view.modules.map((p) => [p.id, p.name] as const)]}
              now={all ? ALL : module.id}
              onChange={(next) => set({ module: next, selection: [] })}
            />
          )}
        </div>
        <Board key={all ? ALL : module.id} module={all ? null : module} onPlaceNext={placeNext} />
      </div>
    </div>
  );
}
