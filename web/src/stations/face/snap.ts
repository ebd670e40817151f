/** Snapping while dragging: to the half millimetre, or onto the centre line of a part nearby. */
import type { Fn } from "../../api/types";

export const GRID = 0.5;
const CATCH = 1.2;

export interface Snapped {
  x: number;
  y: number;
  /** The centre lines that caught it. */
  lines: { x?: number; y?: number };
}

const nearest = (value: number, others: readonly number[]): number | undefined =>
  others.reduce<number | undefined>(
    (best, other) =>
      Math.abs(other - value) < Math.min(CATCH, best === undefined ? CATCH : Math.abs(best - value))
        ? other
        : best,
    undefined,
  );

const onGrid = (value: number): number => Math.round(value / GRID) * GRID;

/** `free` turns snapping off but for a tenth of a millimetre. */
export function snap(x: number, y: number, others: readonly Fn[], free: boolean): Snapped {
  if (free) return { x: Math.round(x * 10) / 10, y: Math.round(y * 10) / 10, lines: {} };
  const lineX = nearest(
    x,
    others.flatMap((f) => (f.place ? [f.place.x] : [])),
  );
  const lineY = nearest(
    y,
    others.flatMap((f) => (f.place ? [f.place.y] : [])),
  );
  return {
    x: lineX ?? onGrid(x),
    y: lineY ?? onGrid(y),
    lines: { ...(lineX === undefined ? {} : { x: lineX }), ...(lineY === undefined ? {} : { y: lineY }) },
  };
}
