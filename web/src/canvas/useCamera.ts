/**
 * The window onto a drawing: fitted at first; then the wheel zooms at the pointer, space-drag and the middle button
 * pan, two fingers pan and pinch. Where one looked last is kept for each drawing while the page is open.
 */
import { type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import {
  centred,
  type Extent,
  fitted,
  panned,
  type PointMm,
  type PointPx,
  px,
  type Size,
  toMm,
  type Viewport,
  zoomed,
} from "./camera";
import { cancelGesture, followPointer } from "./gesture";
import { pixelsPerMm } from "./ruler";

export interface Camera {
  viewport: Viewport;
  window: Size;
  /** Whether it looks elsewhere than at all of it. */
  moved: boolean;
  /** The viewport of this very moment, for what follows a pointer. */
  now: () => Viewport;
  /** Where a pointer is in the window. */
  inWindow: (event: { clientX: number; clientY: number }) => PointPx;
  /** The point of the drawing under a pointer. */
  at: (event: { clientX: number; clientY: number }) => PointMm;
  zoom: (by: number) => void;
  fit: () => void;
  fitTo: (what: Extent) => void;
  /** As large as it is, by the calibrated ruler. */
  trueSize: () => void;
}

const looked = new Map<string, Viewport>();

interface Options {
  /** Names the drawing, so that one finds it as one left it. */
  name: string;
  room?: number;
  tall?: number;
}

export function useCamera(
  frame: RefObject<HTMLElement | null>,
  extent: Extent,
  { name, room = 44, tall = 1 }: Options,
): Camera {
  const [size, setSize] = useState<Size>({ width: 640, height: 600 });
  const [own, setOwn] = useState<{ of: string; viewport: Viewport } | null>(null);
  const { x, y, width, height } = extent;
  const shape = `${name} ${x} ${y} ${width} ${height} ${tall}`;
  const fit = useMemo(
    () => fitted({ x, y, width, height }, size, room, tall),
    [x, y, width, height, size, room, tall],
  );
  const viewport = own?.of === shape ? own.viewport : (looked.get(shape) ?? fit);
  const now = useRef(viewport);
  useLayoutEffect(() => {
    now.current = viewport;
  });

  /** Look from elsewhere; drawn once a frame. */
  const look = useCallback(
    (next: Viewport) => {
      const first = now.current === viewport;
      now.current = next;
      looked.set(shape, next);
      if (first) requestAnimationFrame(() => setOwn({ of: shape, viewport: now.current }));
    },
    [shape, viewport],
  );
  const latest = useRef(look);
  useLayoutEffect(() => {
    latest.current = look;
  });

  useLayoutEffect(() => {
    const box = frame.current?.getBoundingClientRect();
    // Measured once before the first paint, so that the drawing never jumps from a guessed size to the real one.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (box) setSize({ width: box.width, height: box.height });
  }, [frame]);

  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    observer.observe(element);
    const leave = listen(
      element,
      () => now.current,
      (next) => latest.current(next),
    );
    return () => {
      observer.disconnect();
      leave();
    };
  }, [frame]);

  return {
    viewport,
    window: size,
    moved: viewport !== fit,
    now: () => now.current,
    inWindow: (event) => pointIn(frame.current, event),
    at: (event) => toMm(now.current, pointIn(frame.current, event)),
    zoom: (by) => look(zoomed(now.current, by, { x: px(size.width / 2), y: px(size.height / 2) })),
    fit: () => {
      looked.delete(shape);
      setOwn(null);
    },
    fitTo: (what) => look(fitted(what, size, room * 1.5, tall)),
    trueSize: () => {
      const middle = toMm(now.current, { x: px(size.width / 2), y: px(size.height / 2) });
      look(centred({ ...middle, width: 0, height: 0 }, size, pixelsPerMm(), tall));
    },
  };
}

const pointIn = (element: HTMLElement | null, event: { clientX: number; clientY: number }): PointPx => {
  const box = element?.getBoundingClientRect();
  return { x: px(event.clientX - (box?.left ?? 0)), y: px(event.clientY - (box?.top ?? 0)) };
};

/** Pixels that a turn of the wheel stands for, by its own unit: pixels, lines, pages. */
const TURN = [1, 18, 400];

/** Wheel, space-drag, middle button and two fingers on a window. */
function listen(element: HTMLElement, now: () => Viewport, look: (next: Viewport) => void): () => void {
  let space = false;
  const fingers = new Map<number, PointPx>();
  const wheel = (event: WheelEvent) => {
    event.preventDefault();
    const turn = event.deltaY * (TURN[event.deltaMode] ?? 1);
    const at = pointIn(element, event);
    look(zoomed(now(), Math.exp(-turn / (event.ctrlKey ? 120 : 500)), at));
  };
  const pan = (event: PointerEvent) => {
    let last = { x: event.clientX, y: event.clientY };
    followPointer(event, {
      move: (to) => {
        look(panned(now(), to.clientX - last.x, to.clientY - last.y));
        last = { x: to.clientX, y: to.clientY };
      },
      end: () => undefined,
    });
  };
  const down = (event: PointerEvent) => {
    if (event.pointerType === "touch") {
      fingers.set(event.pointerId, pointIn(element, event));
      if (fingers.size < 2) return;
      cancelGesture();
      event.stopPropagation();
      return;
    }
    if (event.button !== 1 && !(event.button === 0 && space)) return;
    event.preventDefault();
    event.stopPropagation();
    pan(event);
  };
  const move = (event: PointerEvent) => {
    const was = fingers.get(event.pointerId);
    if (!was) return;
    const is = pointIn(element, event);
    fingers.set(event.pointerId, is);
    const other = [...fingers].find(([id]) => id !== event.pointerId)?.[1];
    if (!other || fingers.size !== 2) return;
    const before = Math.hypot(was.x - other.x, was.y - other.y);
    const after = Math.hypot(is.x - other.x, is.y - other.y);
    const middle = { x: px((is.x + other.x) / 2), y: px((is.y + other.y) / 2) };
    const v = panned(now(), (is.x - was.x) / 2, (is.y - was.y) / 2);
    look(before > 0 ? zoomed(v, after / before, middle) : v);
  };
  const up = (event: PointerEvent) => fingers.delete(event.pointerId);
  const key = (event: KeyboardEvent) => {
    if (event.key !== " ") return;
    const here = event.target === document.body || element.contains(event.target as Node);
    const button = event.target instanceof Element && event.target.closest("button, a, input, select");
    space = event.type === "keydown" && here && !button;
    element.toggleAttribute("data-panning", space);
    if (space) event.preventDefault();
  };
  element.addEventListener("wheel", wheel, { passive: false });
  element.addEventListener("pointerdown", down, true);
  window.addEventListener("pointermove", move);
  window.addEventListener("pointerup", up);
  window.addEventListener("pointercancel", up);
  window.addEventListener("keydown", key);
  window.addEventListener("keyup", key);
  return () => {
    element.removeEventListener("wheel", wheel);
    element.removeEventListener("pointerdown", down, true);
    window.removeEventListener("pointermove", move);
    window.removeEventListener("pointerup", up);
    window.removeEventListener("pointercancel", up);
    window.removeEventListener("keydown", key);
    window.removeEventListener("keyup", key);
  };
}
