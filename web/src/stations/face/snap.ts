/** Catching on what the core says catches, within a few pixels; else on the grid of half a millimetre. */
import type { GuidesView } from "../../api/types";

export const GRID = 0.5;
const FINE = 0.1;
/** How near (pixels) something has to come to be caught. */
const CATCH = 7;

export type Guide = GuidesView["guides"][number];

export interface Snapped {
  x: number;
  y: number;
  /** What caught it. */
  guides: Guide[];
}

const onGrid = (value: number, step: number): number =>
  Math.round(Math.round(value / step) * step * 1e4) / 1e4;

/** Whether what is dragged reaches into where a guide holds. */
const holds = (guide: Guide, low: number, high: number): boolean =>
  guide.kind !== "gap" || (high > guide.low && low < guide.high);

function nearest(
  axis: Guide["axis"],
  value: number,
  across: readonly [number, number],
  all: readonly Guide[],
  scale: number,
): Guide | undefined {
  let best: Guide | undefined;
  for (const guide of all) {
    const off = Math.abs(guide.at - value);
    if (guide.axis !== axis || off * scale > CATCH || !holds(guide, ...across)) continue;
    if (!best || off < Math.abs(best.at - value) - 1e-6) best = guide;
  }
  return best;
}

/** Where the leader comes to lie; `free` catches nothing but a tenth of a millimetre. */
export function snap(x: number, y: number, from: GuidesView | null, scale: number, free: boolean): Snapped {
  const step = free ? FINE : GRID;
  const fallback = { x: onGrid(x, step), y: onGrid(y, step) };
  if (free || !from) return { ...fallback, guides: [] };
  const [left, down, right, up] = from.box;
  const gx = nearest("x", x, [y + down, y + up], from.guides, scale);
  const at = gx?.at ?? fallback.x;
  const gy = nearest("y", y, [at + left, at + right], from.guides, scale);
  return { x: at, y: gy?.at ?? fallback.y, guides: [gx, gy].filter((g) => g !== undefined) };
}
