/**
 * Nudging by the arrows. A held key is one change and one undo: the parts follow at once, through the DOM, and the
 * whole way is sent when the key is let go.
 */
import { move } from "../../api/commands";
import type { Fn } from "../../api/types";
import type { Changes } from "../../app/design";
import { mm } from "../../panel/units";

const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

interface Held {
  parts: readonly Fn[];
  x: number;
  y: number;
  end: (commit: boolean) => void;
}

let held: Held | null = null;

function draw({ parts, x, y }: Held): void {
  for (const { id, place } of parts)
    if (place)
      document
        .getElementById(`part-${id}`)
        ?.setAttribute("transform", `translate(${place.x + x} ${place.y + y})`);
}

function begin(parts: readonly Fn[], { send }: Changes): Held {
  const now: Held = { parts, x: 0, y: 0, end: () => undefined };
  const up = (event: KeyboardEvent) => {
    if (event.key in WAYS) now.end(true);
  };
  const down = (event: KeyboardEvent) => {
    if (event.key in WAYS) return;
    if (event.key === "Escape") event.stopPropagation();
    now.end(event.key !== "Escape");
  };
  const gone = () => now.end(true);
  const back = () => draw({ ...now, x: 0, y: 0 });
  now.end = (commit) => {
    held = null;
    window.removeEventListener("keyup", up);
    window.removeEventListener("keydown", down, true);
    window.removeEventListener("blur", gone);
    if (!commit || (now.x === 0 && now.y === 0)) return back();
    const ids = now.parts.map((f) => f.id);
    void send([move(ids, now.x, now.y)]).then((kept) => {
      if (!kept) back();
    });
  };
  window.addEventListener("keyup", up);
  window.addEventListener("keydown", down, true);
  window.addEventListener("blur", gone);
  return now;
}

/** One more step of an arrow, for parts that are not locked. */
export function nudge(event: KeyboardEvent, parts: readonly Fn[], changes: Changes): void {
  const way = WAYS[event.key];
  if (!way || parts.length === 0) return;
  const step = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
  held ??= begin(parts, changes);
  held.x = mm(held.x + way[0] * step);
  held.y = mm(held.y + way[1] * step);
  draw(held);
}
