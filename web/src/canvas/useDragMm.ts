/** Dragging something drawn in millimetres: the way so far while it moves, and once at the end. Keys nudge the same. */
import type { KeyboardEvent, PointerEvent } from "react";
import { useState } from "react";
import { followPointer } from "./gesture";

export interface Shift {
  dx: number;
  dy: number;
}

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const half = (value: number) => Math.round(value * 2) / 2;
const none: Shift = { dx: 0, dy: 0 };

export interface DragMm {
  shift: Shift | null;
  grip: {
    onPointerDown: (event: PointerEvent<SVGElement>) => void;
    onKeyDown: (event: KeyboardEvent<SVGElement>) => void;
    onKeyUp: () => void;
    onBlur: () => void;
  };
}

/**
 * `onDone` is told the whole way in mm, y up, when the pointer or the key is let go; what it resolves to says that the
 * change was answered: until then the shift stays. Seen from behind (`mirrored`), a key to the right goes to the left
 * from the front.
 */
export function useDragMm(onDone: (shift: Shift) => Promise<unknown> | undefined, mirrored = false): DragMm {
  const [shift, setShift] = useState<Shift | null>(null);
  const [held, setHeld] = useState<Shift>(none);
  const done = (way: Shift) => {
    if (way.dx === 0 && way.dy === 0) return setShift(null);
    const answered = onDone(way);
    if (answered) void answered.finally(() => setShift(null));
    else setShift(null);
  };
  const onPointerDown = (event: PointerEvent<SVGElement>) => {
    const matrix = (event.currentTarget.parentNode as SVGGraphicsElement).getScreenCTM();
    if (event.button !== 0 || !matrix) return;
    event.preventDefault();
    event.currentTarget.focus();
    const from = { x: event.clientX, y: event.clientY };
    let way = none;
    followPointer(event.nativeEvent, {
      move: (now) => {
        way = {
          dx: half((now.clientX - from.x) / matrix.a),
          dy: half((now.clientY - from.y) / -Math.abs(matrix.d)),
        };
        setShift(way);
      },
      end: () => done(way),
      cancel: () => setShift(null),
    });
  };
  const onKeyDown = (event: KeyboardEvent<SVGElement>) => {
    if (event.key === "Escape" && (held.dx || held.dy)) {
      event.stopPropagation();
      setHeld(none);
      return setShift(null);
    }
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const size = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
    const way = { dx: held.dx + (mirrored ? -1 : 1) * step[0] * size, dy: held.dy + step[1] * size };
    setHeld(way);
    setShift(way);
  };
  const letGo = () => {
    if (held === none) return;
    setHeld(none);
    done(held);
  };
  return { shift, grip: { onPointerDown, onKeyDown, onKeyUp: letGo, onBlur: letGo } };
}
