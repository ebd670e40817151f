/**
 * Dragging placed parts. While the pointer moves only the dragged nodes' transforms are written, through the DOM, so
 * that 400 parts stay fluid; React learns the new places when the batch is kept.
 */
import { move } from "../../api/commands";
import type { DesignView, Fn } from "../../api/types";
import type { Changes } from "../../app/design";
import { useSession } from "../../app/session";
import { mm, type ModulePoint, px, toModule, type Viewport } from "../../panel/units";
import { probe, stopProbing } from "./probe";
import { snap, type Snapped } from "./snap";

interface Held {
  fn: Fn;
  node: Element | null;
}

export interface DragContext {
  view: DesignView;
  module: string;
  viewport: Viewport;
  changes: Changes;
  onSnap: (lines: Snapped["lines"]) => void;
}

const START = 3;

/** Begin on pointer-down over a part that is selected; the rest follows from the pointer. */
export function dragParts(event: PointerEvent, lead: Fn, context: DragContext): void {
  const { view, module, viewport, changes, onSnap } = context;
  const { selection } = useSession.getState();
  const held: Held[] = view.design.functions
    .filter((f) => f.place?.module === module && (selection.includes(f.id) || f.id === lead.id))
    .map((fn) => ({ fn, node: document.getElementById(`part-${fn.id}`) }));
  const others = view.design.functions.filter(
    (f) => f.place?.module === module && !held.some((h) => h.fn.id === f.id),
  );
  const from = { x: event.clientX, y: event.clientY };
  const home = lead.place ?? { x: 0, y: 0 };
  let shift: ModulePoint | null = null;

  const draw = (dx: number, dy: number) => {
    for (const { fn, node } of held) {
      if (fn.place) node?.setAttribute("transform", `translate(${fn.place.x + dx} ${fn.place.y + dy})`);
    }
  };
  const moved = (now: PointerEvent) => {
    const wide = Math.hypot(now.clientX - from.x, now.clientY - from.y);
    if (shift === null && wide < START) return;
    const dx = (now.clientX - from.x) / viewport.scale;
    const dy = -(now.clientY - from.y) / viewport.scale;
    const spot = snap(home.x + dx, home.y + dy, others, now.altKey);
    shift = { x: mm(spot.x - home.x), y: mm(spot.y - home.y) };
    draw(shift.x, shift.y);
    onSnap(spot.lines);
    const ids = held.map((h) => h.fn.id);
    probe({ design: view.id, base: view.revision, lead: lead.id, commands: [move(ids, shift.x, shift.y)] });
  };
  const ended = (commit: boolean) => {
    window.removeEventListener("pointermove", moved);
    window.removeEventListener("pointerup", up);
    window.removeEventListener("keydown", key, true);
    onSnap({});
    stopProbing();
    if (commit && shift === null && !event.shiftKey) useSession.getState().select([lead.id]);
    if (!commit || shift === null || (shift.x === 0 && shift.y === 0)) return draw(0, 0);
    const ids = held.map((h) => h.fn.id);
    void changes.send([move(ids, shift.x, shift.y)]).then((kept) => {
      if (!kept) draw(0, 0);
    });
  };
  const up = () => ended(true);
  const key = (pressed: KeyboardEvent) => {
    if (pressed.key !== "Escape") return;
    pressed.stopPropagation();
    ended(false);
  };
  window.addEventListener("pointermove", moved);
  window.addEventListener("pointerup", up);
  window.addEventListener("keydown", key, true);
}

/** A box drawn over bare plate selects what it holds. */
export function boxSelect(
  event: PointerEvent,
  frame: HTMLElement,
  context: DragContext,
  onBox: (box: { from: ModulePoint; to: ModulePoint } | null) => void,
): void {
  const bounds = frame.getBoundingClientRect();
  const at = (e: PointerEvent) =>
    toModule(context.viewport, px(e.clientX - bounds.left), px(e.clientY - bounds.top));
  const from = at(event);
  let to = from;
  const moved = (now: PointerEvent) => {
    to = at(now);
    onBox({ from, to });
  };
  const up = () => {
    window.removeEventListener("pointermove", moved);
    window.removeEventListener("pointerup", up);
    onBox(null);
    const inside = (v: number, a: number, b: number) => v >= Math.min(a, b) && v <= Math.max(a, b);
    const found = context.view.design.functions.filter(
      ({ place }) =>
        place?.module === context.module && inside(place.x, from.x, to.x) && inside(place.y, from.y, to.y),
    );
    useSession.getState().select(found.map((f) => f.id));
  };
  window.addEventListener("pointermove", moved);
  window.addEventListener("pointerup", up);
}
