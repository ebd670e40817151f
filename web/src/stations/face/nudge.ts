/**
 * Nudging by the arrows. A held key is one change and one undo: what is held follows at once, through the DOM, and the
 * whole way is sent when the key is let go.
 */
import { move } from "../../api/commands";
import type { DesignView } from "../../api/types";
import type { Changes } from "../../app/design";
import { useSession } from "../../app/session";
import { mm } from "../../canvas/camera";
import { doingWords, drawShift, type Held } from "./held";

const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

interface Nudging {
  x: number;
  y: number;
  draw: () => void;
}

let now: Nudging | null = null;

function begin(held: Held, view: DesignView, { send }: Changes): Nudging {
  const nudging: Nudging = { x: 0, y: 0, draw: () => drawShift(held, view, nudging.x, nudging.y) };
  const up = (event: KeyboardEvent) => {
    if (event.key in WAYS) end(true);
  };
  const down = (event: KeyboardEvent) => {
    if (event.key in WAYS) return;
    if (event.key === "Escape") event.stopPropagation();
    end(event.key !== "Escape");
  };
  const gone = () => end(true);
  const end = (commit: boolean) => {
    now = null;
    window.removeEventListener("keyup", up);
    window.removeEventListener("keydown", down, true);
    window.removeEventListener("blur", gone);
    useSession.getState().set({ doing: null });
    if (!commit || (nudging.x === 0 && nudging.y === 0)) return drawShift(held, view, 0, 0);
    const ids = held.functions.map((f) => f.id);
    void send([move(ids, nudging.x, nudging.y, [...held.graphics])]);
  };
  window.addEventListener("keyup", up);
  window.addEventListener("keydown", down, true);
  window.addEventListener("blur", gone);
  useSession.getState().set({ doing: doingWords(view, held, "Moving") });
  return nudging;
}

/** One more step of an arrow. */
export function nudge(event: KeyboardEvent, held: Held, view: DesignView, changes: Changes): void {
  const way = WAYS[event.key];
  if (!way || held.functions.length + held.graphics.length === 0) return;
  const step = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
  now ??= begin(held, view, changes);
  now.x = mm(now.x + way[0] * step);
  now.y = mm(now.y + way[1] * step);
  now.draw();
}
