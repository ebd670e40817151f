/** Stack: the layers of a module as a pile, one in plan, or pressed; below, the section; left, what each holds. */
import type { StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { Boards } from "./Boards";
import { CaseDrawing } from "./CaseDrawing";
import { CaseForm } from "./CaseForm";
import { Fixings } from "./Fixings";
import { FrameDrawing } from "./FrameDrawing";
import { FrameForm } from "./FrameForm";
import { LayerList } from "./LayerList";
import { Order } from "./Order";
import { PileDrawing } from "./PileDrawing";
import { PlanDrawing } from "./PlanDrawing";
import { SectionDrawing } from "./SectionDrawing";
import { SIDES, useStack, viewsOf } from "./store";
import { useStackView } from "./useStackView";

export default function Stack() {
  const view = useDesign();
  const wanted = useSession((s) => s.module);
  const module = view.modules.find((m) => m.id === wanted) ?? view.modules[0];
  const stack = useStackView(module?.id);
  if (!module) return <p className="p-6 text-faint">There is no module yet. Add one at Brief.</p>;
  if (!stack.data) return <NotThere query={stack} words="Laying the sheets out…" />;
  return <Bench stack={stack.data} name={module.name} />;
}

function Bench({ stack, name }: { stack: StackView; name: string }) {
  const design = useDesign();
  const { send } = useChanges(design.id);
  const { view, side, layer, set } = useStack();
  const session = useSession((s) => s.set);
  const chosen = stack.layers.find((l) => l.layer.id === layer) ?? stack.layers[0];
  const shown = (view === "case" && !stack.case) || (view === "frame" && !stack.frame) ? "pile" : view;
  const views = viewsOf(stack.case != null, stack.frame != null);
  const step = (by: number) => {
    const at = stack.layers.findIndex((l) => l.layer.id === chosen?.layer.id);
    const next = stack.layers[at + by];
    if (next) set({ layer: next.layer.id });
  };
  useCommands({
    "stack.view": () => {
      const at = views.findIndex(([key]) => key === shown);
      const next = views[(at + 1) % views.length];
      if (next) set({ view: next[0] });
    },
    "stack.next": () => step(1),
    "stack.previous": () => step(-1),
    "stack.board": () => void send([{ do: "add_layer", role: "board", ...ofModule(stack) }]),
  });
  if (!chosen) return null;
  return (
    <div className="grid h-full grid-cols-[262px_minmax(0,1fr)] max-[900px]:flex max-[900px]:flex-col max-[900px]:overflow-y-auto">
      <section
        aria-label="What it is made of"
        className="flex min-h-0 flex-col border-r border-rule bg-sheet max-[900px]:order-2 max-[900px]:shrink-0"
      >
        <Tabs
          label="What it is made of"
          className="h-auto min-h-9 flex-wrap gap-x-2.5! px-3.5!"
          tabs={SIDES}
          now={side}
          onChange={(next) =>
            set({
              side: next,
              view: next === "case" && stack.case ? "case" : shown === "case" ? "pile" : shown,
            })
          }
        />
        <div
          className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto outline-offset-[-2px]"
          tabIndex={side === "order" ? 0 : undefined}
          role="tabpanel"
          aria-label={SIDES.find(([key]) => key === side)?.[1]}
        >
          {side === "layers" && <LayerList stack={stack} name={name} chosen={chosen.layer.id} />}
          {side === "fixings" && <Fixings stack={stack} />}
          {side === "boards" && <Boards stack={stack} />}
          {side === "case" && (
            <>
              <CaseForm stack={stack} />
              <FrameForm stack={stack} />
            </>
          )}
          {side === "order" && <Order stack={stack} />}
        </div>
      </section>
      <section
        aria-label="Drawings"
        className="flex min-h-0 min-w-0 flex-col max-[900px]:block max-[900px]:shrink-0"
      >
        <div className="flex flex-wrap items-end justify-between">
          <Tabs label="Views" tabs={views} now={shown} onChange={(next) => set({ view: next })} />
          {design.modules.length > 1 && (
            <Tabs
              label="Modules"
              tabs={design.modules.map((m) => [m.id, m.name] as const)}
              now={stack.module}
              onChange={(next) => session({ module: next })}
            />
          )}
        </div>
        {shown === "frame" && stack.frame ? (
          <FrameDrawing made={stack.frame} />
        ) : shown === "case" && stack.case ? (
          <CaseDrawing key={stack.module} stack={stack} made={stack.case} />
        ) : shown === "pile" ? (
          <PileDrawing key={stack.module} stack={stack} chosen={chosen.layer.id} />
        ) : (
          <PlanDrawing key={stack.module} stack={stack} layer={chosen} press={shown === "press"} />
        )}
        <SectionDrawing stack={stack} />
      </section>
    </div>
  );
}

/** The module that a change of the layers belongs to: none while it has the panel's. */
export const ofModule = (stack: StackView): { module?: string } =>
  stack.own ? { module: stack.module } : {};
