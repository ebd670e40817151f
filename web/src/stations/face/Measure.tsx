/** Measuring: two clicks and the way between them; each catches the centre or the edge that is next to it. */
import { useRef, useState } from "react";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";
import { Cased } from "../../canvas/Cased";
import { Tag } from "../../canvas/Tag";
import { shown } from "../../ui/figures";
import type { PlateOnBoard } from "./plates";

/** A point on the board (mm), and what it is. */
export interface MeasuredPoint {
  x: number;
  y: number;
  words: string;
}

export interface Measuring {
  from: MeasuredPoint | null;
  to: MeasuredPoint | null;
  /** What a click would catch now. */
  next: MeasuredPoint | null;
}

/** How near (pixels) the pointer has to be to something to catch it. */
const CATCH = 9;

export function useMeasuring() {
  const { id } = useDesign();
  const [state, setState] = useState<Measuring>({ from: null, to: null, next: null });
  const asking = useRef(0);
  /** What is caught at a point of the board. */
  const catchAt = async (plate: PlateOnBoard | undefined, x: number, y: number, scale: number) => {
    if (!plate) return { x, y, words: "" };
    try {
      const caught = await answered(
        api.GET("/api/designs/{design_id}/face/caught", {
          params: {
            path: { design_id: id },
            query: {
              module: plate.module.id,
              x: x - plate.x,
              y: y - plate.y,
              within: Math.min(100, CATCH / scale),
            },
          },
        }),
      );
      return { x: caught.x + plate.x, y: caught.y + plate.y, words: caught.words };
    } catch {
      return { x, y, words: "" }; // without an answer the point itself is measured
    }
  };
  return {
    measured: state,
    hover: (plate: PlateOnBoard | undefined, x: number, y: number, scale: number) => {
      const mine = ++asking.current;
      void catchAt(plate, x, y, scale).then((next) => {
        if (mine === asking.current) setState((s) => ({ ...s, next }));
      });
    },
    click: (plate: PlateOnBoard | undefined, x: number, y: number, scale: number) => {
      asking.current += 1;
      void catchAt(plate, x, y, scale).then((at) =>
        setState((s) =>
          s.from && !s.to ? { ...s, to: at, next: null } : { from: at, to: null, next: null },
        ),
      );
    },
  };
}

export function Measure({ measured: { from, to, next }, scale }: { measured: Measuring; scale: number }) {
  const s = 1 / scale;
  const end = to ?? next;
  return (
    <g pointerEvents="none">
      {from && end && (
        <>
          <Cased d={`M${from.x} ${from.y}L${end.x} ${end.y}`} scale={scale} colour="var(--measure)" />
        </>
      )}
      {[from, end].map(
        (p, n) =>
          p && (
            <g key={n} transform={`translate(${p.x} ${p.y}) scale(${s} ${-s})`}>
              <circle r={4} fill="var(--measure)" stroke="var(--casing)" strokeWidth={1.5} />
              {p.words && (
                <text
                  y={-10}
                  textAnchor="middle"
                  fontSize={11}
                  fill="var(--ink)"
                  stroke="var(--sheet)"
                  strokeWidth={3}
                  paintOrder="stroke"
                >
                  {p.words}
                </text>
              )}
            </g>
          ),
      )}
      {from && end && (
        <Tag
          x={(from.x + end.x) / 2}
          y={(from.y + end.y) / 2 + 16 * s}
          scale={scale}
          status={to !== null}
          text={`${shown(Math.hypot(end.x - from.x, end.y - from.y), 2)}  ↔ ${shown(Math.abs(end.x - from.x), 2)}  ↕ ${shown(Math.abs(end.y - from.y), 2)}`}
        />
      )}
    </g>
  );
}
