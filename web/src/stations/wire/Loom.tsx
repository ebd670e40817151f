/**
 * The module from behind, as one sees it with the iron in hand, and a board beside it: hover or pick one end and the
 * whole line is thick; pull a line to a pin, or pick it and then a pin, to set it by hand.
 */
import { useCallback, useRef, useState } from "react";
import type { Row, WireView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { Canvas } from "../../canvas/Canvas";
import { useCamera } from "../../canvas/useCamera";
import { Tabs } from "../../ui/Tabs";
import { BoardDrawing, Words } from "./BoardDrawing";
import { laidOut, type Lit } from "./layout";
import { LineCard } from "./LineCard";
import { LineWords } from "./LineWords";
import { Carriers } from "./Carriers";
import { Ways } from "./Ways";
import { Marks, ModuleDrawing } from "./ModuleDrawing";
import { useOnView } from "./onView";
import { Pulled } from "./Pulled";
import { usePull } from "./usePull";
import { PlugsBetween } from "./PlugsBetween";
import { Wires } from "./Wires";

interface Props {
  wire: WireView;
  /** Show the wires of a function by its name, with their tests. */
  onTest: (words: string) => void;
}

export function Loom({ wire, onTest }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { selection } = useSession();
  const [over, setOver] = useState<readonly string[]>([]);
  const [picked, setPicked] = useState<string | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const { module, board, rows, here, toModule, toBoard, stay } = useOnView(wire);
  const pick = useCallback(
    (line: string) => {
      setPicked((now) => (now === line ? null : line));
      stay();
    },
    [stay],
  );
  const onPlugs = new Set(
    rows.flatMap((row) => (row.controller === board?.id && row.wire?.plug ? [row.wire.plug] : [])),
  );
  const between = wire.plugs.filter((plug) => onPlugs.has(plug.id));
  const layout = laidOut(module ?? EMPTY, board, between);
  const camera = useCamera(frame, layout.extent, {
    name: `wire ${id} ${module?.id} ${board?.id} ${between.length}`,
    room: 14,
  });
  const give = (line: string | null, pin: string) => {
    if (line && board)
      void send([{ do: "pin", line, controller: board.id, pin, found: false }]).then(() =>
        setPicked((now) => (now === line ? null : now)),
      );
  };
  const { pull, grab } = usePull(camera, give);
  useCommands({ "wire.out": picked ? () => setPicked(null) : undefined });
  if (!module || !wire.modules.some((m) => m.terminals.some((t) => t.net)))
    return <p className="p-6 text-faint">No wires yet: place parts at Face, then come back.</p>;
  const pickedOwner = wire.rows.find((row) => row.line === picked)?.owner;
  const chosen = design.functions.filter(
    (fn) => fn.place && fn.part && (picked ? fn.id === pickedOwner : selection.includes(fn.id)),
  );
  const named = pull ? [pull.line] : picked !== null ? [picked] : over;
  const held = pull?.line ?? picked;
  // What is read through a chip or a matrix has no pin of its own to be given.
  const giving = wire.rows.find((row) => row.line === held && !row.via && row.pin !== "all");
  const lit: Lit = withNetworks(
    wire,
    named.length > 0 ? named : wire.rows.filter((r) => selection.includes(r.owner)).map((r) => r.line),
  );
  return (
    <div className="flex h-full flex-col max-[900px]:h-auto">
      <div className="flex min-h-9 flex-wrap items-end justify-between gap-x-6">
        <Tabs
          label="Modules"
          tabs={wire.modules.map((m) => [m.id, m.name] as const)}
          now={module.id}
          onChange={(next) => {
            setPicked(null);
            toModule(next);
          }}
        />
        <Tabs
          label="Boards"
          tabs={wire.boards.map((b) => {
            const count = rows.filter((row) => row.controller === b.id).length;
            return [b.id, `${b.name}, ${count} from here`] as const;
          })}
          now={board?.id ?? ""}
          onChange={toBoard}
        />
      </div>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-80 max-[900px]:flex-none"
        drawing={{
          role: "group",
          "aria-label": `${module.name} from behind, and its lines`,
          onPointerDown: (event) => {
            if (event.target === event.currentTarget) setPicked(null);
          },
        }}
      >
        <ModuleDrawing
          module={module}
          at={layout.module}
          scale={camera.viewport.scale}
          rows={rows}
          lit={lit}
          picked={picked}
          onOver={setOver}
          onPick={pick}
          onGrab={grab}
        />
        {board ? (
          <BoardDrawing
            board={board}
            layout={layout}
            rows={wire.rows}
            here={here}
            lit={lit}
            picking={giving}
            target={giving && pull?.pin}
            onOver={setOver}
            onPick={pick}
            onGive={(pin) => give(giving?.line ?? null, pin)}
            onGrab={grab}
          />
        ) : (
          <Words x={layout.arrival} y={module.height / 2} size={10 * layout.unit} anchor="start">
            Add a controller: its pins stand here
          </Words>
        )}
        <Wires
          module={module}
          board={board}
          layout={layout}
          rows={rows}
          lit={lit}
          scale={camera.viewport.scale}
        />
        <Marks module={module} at={layout.module} rows={rows} lit={lit} scale={camera.viewport.scale} />
        {giving && pull && (
          <Pulled module={module} layout={layout} pull={pull} scale={camera.viewport.scale} />
        )}
        <PlugsBetween layout={layout} rows={rows} lit={lit} onOver={setOver} onPick={pick} />
      </Canvas>
      {chosen[0] && (
        <div className="grid max-h-[42%] min-h-0 shrink-0 grid-cols-[minmax(250px,4fr)_minmax(0,7fr)] divide-x divide-rule border-t border-rule bg-sheet max-[1100px]:grid-cols-1 max-[1100px]:divide-x-0 max-[1100px]:overflow-y-auto max-[900px]:max-h-none">
          <LineCard
            fn={chosen[0]}
            rows={wire.rows.filter((row) => row.owner === chosen[0]?.id && !isOfNetwork(row))}
            picked={picked}
            onPick={pick}
            onTest={onTest}
          />
          <div className="min-h-0 overflow-y-auto px-4 py-2">
            {chosen.length === 1 && chosen[0].switches.amps > 0 && <Carriers fn={chosen[0]} />}
            <Ways key={chosen.map((fn) => fn.id).join(" ")} functions={chosen} />
          </div>
        </div>
      )}
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 py-1 text-[12px]">
        <LineWords rows={wire.rows.filter((row) => lit.has(row.line))} picking={giving !== undefined} />
        <span className="flex-1" />
        <Looking camera={camera} real={false} />
      </div>
    </div>
  );
}

const EMPTY: WireView["modules"][number] = {
  id: "",
  name: "",
  path: "",
  width: 1,
  height: 1,
  colour: "",
  bodies: [],
  terminals: [],
  ends: [],
};

/** These lines, and those of the networks that read or drive them. */
function withNetworks(wire: WireView, named: readonly string[]): Lit {
  const lit = new Set(named);
  for (const { line, via } of wire.rows)
    if (via && lit.has(line))
      wire.rows.filter((row) => row.line.startsWith(`${via}.`)).forEach((row) => lit.add(row.line));
  return lit;
}

/** Whether a row is a line of what reads or drives several together. */
const isOfNetwork = (row: Row) => row.line.startsWith("~");
