/** Selecting with a box that is drawn over bare plate. */
import { useSession } from "../../app/session";
import { followPointer } from "../../canvas/gesture";
import type { BoardContext } from "./held";
import { useFace } from "./store";

/** A box drawn over bare plate selects what it touches; with Shift it adds. */
export function boxSelect(pressed: PointerEvent, frame: HTMLElement, { view }: BoardContext): void {
  const { graphics } = view.design;
  const bounds = frame.getBoundingClientRect();
  const boxTo = (event: PointerEvent) => ({
    x: Math.min(pressed.clientX, event.clientX) - bounds.left,
    y: Math.min(pressed.clientY, event.clientY) - bounds.top,
    width: Math.abs(event.clientX - pressed.clientX),
    height: Math.abs(event.clientY - pressed.clientY),
  });
  const { set } = useFace.getState();
  const before = pressed.shiftKey ? useSession.getState().selection : [];
  followPointer(pressed, {
    move: (event) => set({ box: boxTo(event) }),
    end: (event) => {
      set({ box: null });
      const box = boxTo(event);
      const touched = [...frame.querySelectorAll<SVGElement>("[data-touch]")].flatMap((node) => {
        const is = node.getBoundingClientRect();
        const left = is.left - bounds.left;
        const top = is.top - bounds.top;
        const meets =
          left < box.x + box.width &&
          left + is.width > box.x &&
          top < box.y + box.height &&
          top + is.height > box.y;
        return meets ? [node.dataset["touch"] ?? ""] : [];
      });
      const drawn = new Set(graphics.map((g) => g.id));
      const parts = touched.filter((id) => !drawn.has(id));
      const rest = touched.filter((id) => drawn.has(id));
      useSession.getState().select([...new Set([...before, ...parts, ...rest])]);
    },
    click: () => {
      if (!pressed.shiftKey) useSession.getState().select([]);
    },
    cancel: () => set({ box: null }),
  });
}
