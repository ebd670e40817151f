/** A module from behind with its loom: trunk, drops, ties, where it leaves. The trunk is dragged to where it shall run. */
import { useRef, useState } from "react";
import type { HarnessView, ModuleBehind } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { useSession } from "../../app/session";
import { Canvas } from "../../canvas/Canvas";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { useDragMm } from "../../canvas/useDragMm";
import { many, shown } from "../../ui/figures";

type Loom = HarnessView["looms"][number];
type Drop = Loom["drops"][number];
type Point = readonly number[];

interface Props {
  loom: Loom;
  behind: ModuleBehind;
}

export function LoomDrawing({ loom, behind }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { selection, select } = useSession();
  const [over, setOver] = useState<string | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const extent = { x: -12, y: -16, width: behind.width + 24, height: behind.height + 28 };
  const camera = useCamera(frame, extent, { name: `loom ${id} ${loom.module}`, room: 14 });
  const across = design.modules.find((m) => m.id === loom.module)?.loom.trunk !== "up";
  const { shift, grip } = useDragMm((way) => {
    const by = across ? way.dy : -way.dx; // from behind: to the left is further right
    return send([{ do: "edit_loom", module: loom.module, at: Math.round((loom.at + by) * 10) / 10 }]);
  });
  const moved = shift ? (across ? { x: 0, y: shift.dy } : { x: shift.dx, y: 0 }) : { x: 0, y: 0 };
  const at = (p: Point) => [behind.width - (p[0] ?? 0), p[1] ?? 0] as const;
  const scale = camera.viewport.scale;
  const named = loom.drops.find((drop) => drop.owner === over);
  const trunk = [at(loom.start), at(loom.end)] as const;
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col">
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-80 max-[900px]:flex-none"
        drawing={{ role: "group", "aria-label": `Loom of ${loom.name}, seen from behind` }}
      >
        <path d={behind.path} fill="var(--sheet)" stroke="var(--body-edge)" strokeWidth={1 / scale} />
        {behind.bodies.map((b) => (
          <path
            key={b.function}
            d={b.path}
            fill={selection.includes(b.function) || over === b.function ? "var(--wash)" : "var(--body-light)"}
            stroke={selection.includes(b.function) ? "var(--chosen)" : "var(--body-edge)"}
            strokeWidth={(selection.includes(b.function) ? 2 : 1) / scale}
            className="cursor-pointer"
            onMouseEnter={() => setOver(b.function)}
            onMouseLeave={() => setOver(null)}
            onClick={() => select([b.function])}
          >
            <title>{b.name}</title>
          </path>
        ))}
        <g stroke="var(--petrol)" strokeLinecap="round" pointerEvents="none">
          {loom.drops.map((drop) => (
            <Line
              key={drop.owner}
              from={at(drop.at)}
              to={add(at(drop.joins), moved)}
              width={Math.max(1 / scale, 0.45 * drop.thick)}
              faint={over !== null && over !== drop.owner}
            />
          ))}
          {loom.sections.map((section) => (
            <Line
              key={`${section.start[0]} ${section.start[1]}`}
              from={add(at(section.start), moved)}
              to={add(at(section.end), moved)}
              width={section.thick}
            />
          ))}
          {loom.exit.wires > 0 && (
            <Line from={add(at(loom.exit.start), moved)} to={at(loom.exit.end)} width={loom.exit.thick} />
          )}
        </g>
        <g>
          <line
            x1={trunk[0][0] + moved.x}
            y1={trunk[0][1] + moved.y}
            x2={trunk[1][0] + moved.x}
            y2={trunk[1][1] + moved.y}
            stroke="transparent"
            strokeWidth={Math.max(loom.thickest + 3, 14 / scale)}
            role="slider"
            tabIndex={0}
            aria-label={`Trunk of ${loom.name}; arrows move it`}
            aria-orientation={across ? "vertical" : "horizontal"}
            aria-valuenow={Math.round(loom.at)}
            aria-valuemin={0}
            aria-valuemax={Math.round(across ? behind.height : behind.width)}
            aria-valuetext={`${shown(loom.at)} mm`}
            className={across ? "cursor-ns-resize" : "cursor-ew-resize"}
            {...grip}
          />
        </g>
        {loom.ties.map((tie) => {
          const [x, y] = add(at(tie), moved);
          return (
            <circle
              key={`${tie[0]} ${tie[1]}`}
              cx={x}
              cy={y}
              r={Math.max(1.6, 4 / scale)}
              fill="var(--sheet)"
              stroke="var(--ink)"
              strokeWidth={1.5 / scale}
              pointerEvents="none"
            />
          );
        })}
        {loom.exit.wires > 0 && (
          <Tag
            x={at(loom.exit.end)[0]}
            y={at(loom.exit.end)[1] - 12 / scale}
            scale={scale}
            text={`${many(loom.exit.wires, "wire")} leave, ${shown(loom.exit.thick)} mm`}
          />
        )}
        {named && (
          <Tag
            x={at(named.at)[0]}
            y={at(named.at)[1] + 16 / scale}
            scale={scale}
            text={dropWords(named)}
            ink="var(--ink)"
            ground="var(--sheet)"
            edge="var(--chosen)"
          />
        )}
        {shift && (
          <Tag
            x={trunk[0][0] + moved.x}
            y={trunk[0][1] + moved.y + 14 / scale}
            scale={scale}
            text={`${shown(loom.at + (across ? shift.dy : -shift.dx))} mm`}
            status
          />
        )}
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 py-1 text-[12px]">
        <p className="text-faint">
          From behind. Thickest <span className="num">{shown(loom.thickest)} mm</span>: no bend tighter than{" "}
          <span className="num">{Math.round(loom.bend)} mm</span>; {many(loom.ties.length, "tie")};{" "}
          <span className="num">{loom.metres.toFixed(1)} m</span> of wire here. Drag the trunk to move it.
        </p>
        <span className="flex-1" />
        <Looking camera={camera} real={false} />
      </div>
    </div>
  );
}

const add = (p: readonly [number, number], by: { x: number; y: number }) =>
  [p[0] + by.x, p[1] + by.y] as const;

const dropWords = (drop: Drop) => `${drop.name}: ${many(drop.wires, "wire")}, ${shown(drop.thick)} mm`;

interface LineProps {
  from: readonly [number, number];
  to: readonly [number, number];
  width: number;
  faint?: boolean;
}

function Line({ from, to, width, faint = false }: LineProps) {
  return (
    <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} strokeWidth={width} opacity={faint ? 0.25 : 1} />
  );
}
