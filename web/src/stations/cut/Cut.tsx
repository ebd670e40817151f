/** Cut: the sheets on their beds with what is done to them, or each layer by itself; pieces, coupons, files. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { CutView, SheetsView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { Bed } from "./Bed";
import { ByHand } from "./ByHand";
import { Coupons } from "./Coupons";
import { Files } from "./Files";
import { Jobs } from "./Jobs";
import { Pieces } from "./Pieces";
import { Player } from "./Player";
import { SheetDrawing } from "./SheetDrawing";
import { Surface } from "./Surface";
import { SIDES, useCut, usePlayer, VIEWS } from "./store";
import { useSheetPlan, useSheets } from "./useSheets";

export default function Cut() {
  const { id, revision } = useDesign();
  const sheets = useSheets();
  const cut = useQuery({
    queryKey: ["cut", id, revision],
    queryFn: () => answered(api.GET("/api/designs/{design_id}/cut", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!cut.data) return <NotThere query={cut} words="Drawing the sheets…" />;
  if (!sheets.data) return <NotThere query={sheets} words="Laying the pieces on their sheets…" />;
  if (cut.data.modules.length === 0)
    return <p className="p-6 text-faint">There is no module to cut yet. Add one at Brief.</p>;
  return <Bench cut={cut.data} sheets={sheets.data} />;
}

function Bench({ cut, sheets }: { cut: CutView; sheets: SheetsView }) {
  const { view, side, sheet: wanted, set } = useCut();
  const play = usePlayer((p) => p.set);
  const module = useSession((s) => s.module);
  const sheet = sheets.sheets.find((s) => s.id === wanted) ?? sheets.sheets[0];
  const plan = useSheetPlan(sheet, sheets.revision);
  const chosen = cut.modules.find((m) => m.id === module) ?? cut.modules[0];
  const step = (by: number) => {
    const next = sheets.sheets[sheets.sheets.findIndex((s) => s.id === sheet?.id) + by];
    if (!next) return;
    set({ sheet: next.id });
    play({ at: 0, playing: false });
  };
  useCommands({
    "cut.play": () => play({ playing: !usePlayer.getState().playing }),
    "cut.next": () => step(1),
    "cut.previous": () => step(-1),
    "cut.view": () => {
      const next = VIEWS[(VIEWS.findIndex(([key]) => key === view) + 1) % VIEWS.length];
      if (next) set({ view: next[0] });
    },
  });
  return (
    <div className="grid h-full grid-cols-[262px_minmax(0,1fr)] max-[900px]:flex max-[900px]:flex-col max-[900px]:overflow-y-auto">
      <section
        aria-label="Work"
        className="flex min-h-0 flex-col border-r border-rule bg-sheet max-[900px]:order-2 max-[900px]:shrink-0"
      >
        <Tabs
          label="Work"
          className="gap-x-3! px-3.5!"
          tabs={SIDES}
          now={side}
          onChange={(next) => set({ side: next })}
        />
        <div
          className="min-h-0 flex-1 overflow-x-hidden overflow-y-auto outline-offset-[-2px]"
          role="tabpanel"
          aria-label={SIDES.find(([key]) => key === side)?.[1]}
        >
          {side === "jobs" && <Jobs sheets={sheets} sheet={sheet} plan={plan.data} cautions={cut.cautions} />}
          {side === "pieces" && <Pieces sheets={sheets} />}
          {side === "coupons" && <Coupons sheets={sheets} />}
          {side === "surface" && <Surface />}
          {side === "files" && chosen && <Files cut={cut} module={chosen} />}
        </div>
      </section>
      <section
        aria-label="Drawings"
        className="flex min-h-0 min-w-0 flex-col max-[900px]:block max-[900px]:shrink-0"
      >
        <div className="flex flex-wrap items-end justify-between">
          <Tabs label="Views" tabs={VIEWS} now={view} onChange={(next) => set({ view: next })} />
          {view === "bed" && <Machines sheets={sheets} now={sheet?.machine} />}
        </div>
        {view === "hand" ? (
          <ByHand />
        ) : view === "layer" || !sheet ? (
          chosen && <OneLayer cut={cut} module={chosen} />
        ) : (
          <>
            <Bed key={sheet.machine} sheet={sheet} plan={plan.data} />
            {plan.data ? (
              <Player plan={plan.data} />
            ) : (
              <NotThere query={plan} words="Working out the tool paths…" />
            )}
          </>
        )}
      </section>
    </div>
  );
}

/** The machines that cut something: a press shows the first sheet of one. */
function Machines({ sheets, now }: { sheets: SheetsView; now: string | undefined }) {
  const set = useCut((s) => s.set);
  const play = usePlayer((p) => p.set);
  const machines = [...new Map(sheets.sheets.map((s) => [s.machine, s.machine_name])).entries()];
  if (machines.length < 2 || now === undefined) return null;
  return (
    <Tabs
      label="Machines"
      tabs={machines}
      now={now}
      onChange={(next) => {
        set({ sheet: sheets.sheets.find((s) => s.machine === next)?.id ?? null });
        play({ at: 0, playing: false });
      }}
    />
  );
}

function OneLayer({ cut, module }: { cut: CutView; module: CutView["modules"][number] }) {
  const { layer, set } = useCut();
  const session = useSession((s) => s.set);
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const sheet = module.sheets.find((s) => s.id === layer) ?? module.sheets[0];
  const flip = (operation: string) => {
    const next = new Set(hidden);
    if (!next.delete(operation)) next.add(operation);
    setHidden(next);
  };
  return (
    <>
      <div className="flex min-h-9 flex-wrap items-end gap-x-6 px-4 text-[12px]">
        <Tabs
          label="Modules"
          tabs={cut.modules.map((m) => [m.id, m.name] as const)}
          now={module.id}
          onChange={(next) => session({ module: next })}
          className="px-0!"
        />
        <Tabs
          label="Layers"
          tabs={module.sheets.map(
            (s) =>
              [
                s.id,
                s.id === "film" ? "Film" : layerName(s.title) + (s.thickness > 0 ? ` ${s.thickness} mm` : ""),
              ] as const,
          )}
          now={sheet?.id ?? ""}
          onChange={(next) => set({ layer: next })}
          className="px-0!"
        />
      </div>
      {sheet && <SheetDrawing key={module.id} module={module} sheet={sheet} hidden={hidden} onFlip={flip} />}
    </>
  );
}

const layerName = (title: string): string => title.slice(title.lastIndexOf(":") + 2);
