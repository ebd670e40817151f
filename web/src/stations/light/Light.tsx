/** Light: a module at night as it will be; left, how each legend reads, what lies behind it, the lamps. */
import type { LightView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Progress } from "../../ui/Progress";
import { Tabs } from "../../ui/Tabs";
import { Behind } from "./Behind";
import { Figures } from "./Figures";
import { LampTable } from "./LampTable";
import { LegendBars } from "./LegendBars";
import { NightDrawing } from "./NightDrawing";
import { SIDES, useLightState, VIEWS, testLamps } from "./store";
import { useLaying } from "./useLaying";
import { useLightView } from "./useLight";

export default function Light() {
  const view = useDesign();
  const wanted = useSession((s) => s.module);
  const module = view.modules.find((m) => m.id === wanted) ?? view.modules[0];
  const light = useLightView(module?.id);
  if (!module) return <p className="p-6 text-faint">There is no module yet. Add one at Brief.</p>;
  if (!light.data) return <NotThere query={light} words="Turning the lights out…" />;
  return <Bench key={module.id} light={light.data} />;
}

function Bench({ light }: { light: LightView }) {
  const design = useDesign();
  const { view, side, set } = useLightState();
  const session = useSession((s) => s.set);
  const laying = useLaying(light);
  useCommands({
    "light.view": () => {
      const at = VIEWS.findIndex(([key]) => key === view);
      set({ view: VIEWS[(at + 1) % VIEWS.length]?.[0] ?? "night" });
    },
    "light.strip": laying.addStrip,
    "light.led": laying.addLed,
    "light.remove": laying.remove,
    "light.lamps": testLamps,
    "light.suggest": () => void laying.suggest("rows"),
  });
  return (
    <div className="grid h-full grid-cols-[262px_minmax(0,1fr)] max-[900px]:flex max-[900px]:flex-col max-[900px]:overflow-y-auto">
      <section
        aria-label="What is lit"
        className="flex min-h-0 flex-col border-r border-rule bg-sheet max-[900px]:order-2 max-[900px]:shrink-0"
      >
        <Tabs
          label="What is lit"
          className="px-3.5!"
          tabs={SIDES}
          now={side}
          onChange={(next) => set({ side: next })}
        />
        <div
          className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto outline-offset-[-2px]"
          role="tabpanel"
          aria-label={SIDES.find(([key]) => key === side)?.[1]}
        >
          {side === "legends" && <LegendBars light={light} laying={laying} />}
          {side === "behind" && <Behind light={light} laying={laying} />}
          {side === "lamps" && <LampTable />}
        </div>
      </section>
      <section
        aria-label="Drawings"
        className="flex min-h-0 min-w-0 flex-col max-[900px]:block max-[900px]:shrink-0"
      >
        {laying.job.standing && (
          <Progress
            label={laying.what}
            done={laying.job.standing.done}
            words={laying.job.standing.words}
            onStop={laying.job.stop}
          />
        )}
        <div className="flex flex-wrap items-end justify-between">
          <Tabs label="Views" tabs={VIEWS} now={view} onChange={(next) => set({ view: next })} />
          {design.modules.length > 1 && (
            <Tabs
              label="Modules"
              tabs={design.modules.map((m) => [m.id, m.name] as const)}
              now={light.module}
              onChange={(next) => session({ module: next })}
            />
          )}
        </div>
        <NightDrawing light={light} laying={laying} />
        <Figures light={light} laying={laying} />
      </section>
    </div>
  );
}
