/** Dragging something drawn in millimetres: the way so far while it moves, and once at the end. Keys nudge the same. */
import type { KeyboardEvent, PointerEvent } from "react";
import { useState } from "react";

interface Shift {
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

export interface DragMm {
  shift: Shift | null;
  grip: {
    onPointerDown: (event: PointerEvent<SVGElement>) => void;
    onKeyDown: (event: KeyboardEvent<SVGElement>) => void;
  };
}

/** `onDone` is told the whole way in mm, y up, when the pointer is let go or a key was pressed. */
export function useDragMm(onDone: (shift: Shift) => void): DragMm {
  const [shift, setShift] = useState<Shift | null>(null);
  const onPointerDown = (event: PointerEvent<SVGElement>) => {
    const matrix = (event.currentTarget.parentNode as SVGGraphicsElement).getScreenCTM();
    if (event.button !== 0 || !matrix) return;
    event.preventDefault();
    event.currentTarget.focus();
    const from = { x: event.clientX, y: event.clientY };
    let way: Shift = { dx: 0, dy: 0 };
    const moved = (now: globalThis.PointerEvent) => {
      way = {
        dx: half((now.clientX - from.x) / matrix.a),
        dy: half((now.clientY - from.y) / -Math.abs(matrix.d)),
      };
      setShift(way);
    };
    const ended = (commit: boolean) => {
      window.removeEventListener("pointermove", moved);
      window.removeEventListener("pointerup", up);
      window.removeEventListener("keydown", key, true);
      setShift(null);
      if (commit && (way.dx !== 0 || way.dy !== 0)) onDone(way);
    };
    const up = () => ended(true);
    const key = (pressed: globalThis.KeyboardEvent) => {
      if (pressed.key !== "Escape") return;
      pressed.stopPropagation();
      ended(false);
    };
    window.addEventListener("pointermove", moved);
    window.addEventListener("pointerup", up);
    window.addEventListener("keydown", key, true);
  };
  const onKeyDown = (event: KeyboardEvent<SVGElement>) => {
    const step = STEPS[event.key];
    if (!step) return;
    event.preventDefault();
    event.stopPropagation();
    const size = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
    onDone({ dx: step[0] * size, dy: step[1] * size });
  };
  return { shift, grip: { onPointerDown, onKeyDown } };
}
