/** Face: the panel at true proportions with the views over it; beside it the tray, the words, pictures and sweeps. */
import { useMemo } from "react";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Tabs } from "../../ui/Tabs";
import { Board } from "./Board";
import { Pictures } from "./Pictures";
import { inTray, putNext } from "./putDown";
import { ALL, useFace, VIEWS } from "./store";
import { Sweeps } from "./Sweeps";
import { Tray } from "./Tray";
import { LegendsSide } from "./LegendsSide";

export default function Face() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const wanted = useSession((s) => s.module);
  const set = useSession((s) => s.set);
  const face = useFace();
  const all = wanted === ALL && view.modules.length > 1;
  const module = view.modules.find((p) => p.id === wanted) ?? view.modules[0];
  const waiting = useMemo(() => inTray(view), [view]);
  if (!module) {
    return <p className="p-6 text-faint">This design has no plate yet. Add one at Brief.</p>;
  }
  const placeNext = () => putNext(module.id, changes);
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
