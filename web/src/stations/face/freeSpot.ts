/** Where the next part of the tray is put down: beside its group, else where the plate is emptiest. */
import type { DesignView, Fn, ModuleView } from "../../api/types";
import { reach } from "../../panel/shapes";

interface Spot {
  x: number;
  y: number;
}

const STEP = 5;

/** A rough look for room; the checks judge what comes of it. */
export function freeSpot(view: DesignView, module: ModuleView, fn: Fn): Spot {
  const parts = new Map(view.design.parts.map((p) => [p.id, p]));
  const radius = (f: Fn): number => {
    const part = f.part ? parts.get(f.part) : undefined;
    if (!part) return 10;
    const sizes = [part.cover, part.body].map(reach);
    return Math.max(...sizes.map((s) => Math.max(s.width, s.height))) / 2;
  };
  const here = view.design.functions.filter((f) => f.place?.module === module.id);
  const own = radius(fn);
  const margin = own + 6;
  const mates = here.filter((f) => f.group === fn.group && fn.group !== "");
  const mate = mates[mates.length - 1]?.place ?? { x: module.width / 2, y: module.height / 2 };
  let best: Spot & { score: number } = { x: module.width / 2, y: module.height / 2, score: -Infinity };
  for (let x = margin; x <= module.width - margin; x += STEP) {
    for (let y = margin; y <= module.height - margin; y += STEP) {
      const room = Math.min(
        60,
        ...here.map((f) => Math.hypot((f.place?.x ?? 0) - x, (f.place?.y ?? 0) - y) - radius(f) - own),
        ...module.fixings.map((f) => Math.hypot(f.x - x, f.y - y) - f.head - own),
      );
      const score = Math.min(room, 22) * 10 - Math.hypot(mate.x - x, mate.y - y) / 10;
      if (score > best.score) best = { x, y, score };
    }
  }
  return { x: Math.round(best.x * 2) / 2, y: Math.round(best.y * 2) / 2 };
}
