/**
 * The one pointer machine: from a press to where it is let go. A press that does not move is a click. Esc, a second
 * finger and a pointer that the system takes away cancel it. Only one is under way at a time.
 */
export interface Gesture {
  /** It moved further than a shaking hand: from now on it is a drag. */
  begin?: () => void;
  /** Where the pointer is now; its first call comes right after `begin`. */
  move: (event: PointerEvent) => void;
  /** Let go after it moved. */
  end: (event: PointerEvent) => void;
  /** Let go without having moved. */
  click?: () => void;
  /** Given up: everything as it was. */
  cancel?: () => void;
}

/** How far (pixels) a press may stray and still be a click: a mouse, and a finger. */
const STRAY = { mouse: 3, touch: 9 };

let giveUp: (() => void) | null = null;

/** Give up what is under way, as Esc does. */
export const cancelGesture = (): void => giveUp?.();

/** Follow the pointer that was pressed until it is let go. */
export function followPointer(pressed: PointerEvent, gesture: Gesture): void {
  cancelGesture();
  const stray = pressed.pointerType === "mouse" ? STRAY.mouse : STRAY.touch;
  let begun = false;
  const mine = (event: PointerEvent) => event.pointerId === pressed.pointerId;
  const moved = (event: PointerEvent) => {
    if (!mine(event)) return;
    const way = Math.hypot(event.clientX - pressed.clientX, event.clientY - pressed.clientY);
    if (!begun && way < stray) return;
    if (!begun) {
      begun = true;
      gesture.begin?.();
    }
    gesture.move(event);
  };
  const over = () => {
    giveUp = null;
    window.removeEventListener("pointermove", moved);
    window.removeEventListener("pointerup", up);
    window.removeEventListener("pointercancel", taken);
    window.removeEventListener("keydown", key, true);
  };
  const up = (event: PointerEvent) => {
    if (!mine(event)) return;
    over();
    if (begun) gesture.end(event);
    else gesture.click?.();
  };
  const cancel = () => {
    over();
    if (begun) gesture.cancel?.();
  };
  const taken = (event: PointerEvent) => {
    if (mine(event)) cancel();
  };
  const key = (event: KeyboardEvent) => {
    if (event.key !== "Escape") return;
    event.stopPropagation();
    event.preventDefault();
    cancel();
  };
  giveUp = cancel;
  window.addEventListener("pointermove", moved);
  window.addEventListener("pointerup", up);
  window.addEventListener("pointercancel", taken);
  window.addEventListener("keydown", key, true);
}
