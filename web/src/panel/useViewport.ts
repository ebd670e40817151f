/** The window onto a panel: fitted at first, then zoomed and panned by wheel and keys. */
import { type RefObject, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { fitted, px, type Viewport, zoomed } from "./units";

interface Window {
  width: number;
  height: number;
}

export interface View {
  viewport: Viewport;
  window: Window;
  zoom: (by: number) => void;
  fit: () => void;
  pan: (dx: number, dy: number) => void;
}

export function useViewport(
  frame: RefObject<HTMLElement | null>,
  width: number,
  height: number,
  room = 44,
): View {
  const [size, setSize] = useState<Window>({ width: 640, height: 600 });
  const [own, setOwn] = useState<{ of: string; viewport: Viewport } | null>(null);
  const shape = `${width} ${height}`;
  const viewport = own?.of === shape ? own.viewport : fitted(width, height, size, room);
  const now = useRef(viewport);
  useEffect(() => {
    now.current = viewport;
  });

  useLayoutEffect(() => {
    const box = frame.current?.getBoundingClientRect();
    // Measured once before the first paint, so that the panel never jumps from a guessed size to the real one.
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
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const box = element.getBoundingClientRect();
      const at = [px(event.clientX - box.left), px(event.clientY - box.top)] as const;
      setOwn({ of: shape, viewport: zoomed(now.current, Math.exp(-event.deltaY / 600), ...at) });
    };
    element.addEventListener("wheel", wheel, { passive: false });
    return () => {
      observer.disconnect();
      element.removeEventListener("wheel", wheel);
    };
  }, [frame, shape]);

  const zoom = useCallback(
    (by: number) =>
      setOwn({ of: shape, viewport: zoomed(now.current, by, px(size.width / 2), px(size.height / 2)) }),
    [shape, size],
  );
  const pan = useCallback(
    (dx: number, dy: number) => {
      const v = now.current;
      setOwn({ of: shape, viewport: { ...v, left: px(v.left + dx), top: px(v.top + dy) } });
    },
    [shape],
  );
  const fit = useCallback(() => setOwn(null), []);
  return { viewport, window: size, zoom, fit, pan };
}
