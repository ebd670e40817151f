/** Pulling a line from its end, or from its pin, to another pin: where it is now, and what it is told when it is let go. */
import { useCallback, useLayoutEffect, useRef, useState } from "react";
import { followPointer } from "../../canvas/gesture";
import type { Camera } from "../../canvas/useCamera";

export interface Pull {
  line: string;
  x: number;
  y: number;
  /** The pin under the pointer. */
  pin: string | null;
}

export type Grab = (line: string, event: React.PointerEvent) => void;

/** A pin is drawn with its name in ``data-pin``. */
const pinUnder = (event: PointerEvent) =>
  document.elementFromPoint(event.clientX, event.clientY)?.closest("[data-pin]")?.getAttribute("data-pin") ??
  null;

export function usePull(camera: Camera, onGive: (line: string, pin: string) => void) {
  const [pull, setPull] = useState<Pull | null>(null);
  const latest = useRef({ camera, onGive });
  useLayoutEffect(() => {
    latest.current = { camera, onGive };
  });
  const grab = useCallback<Grab>((line, event) => {
    if (event.button !== 0) return;
    followPointer(event.nativeEvent, {
      move: (to) => setPull({ line, ...latest.current.camera.at(to), pin: pinUnder(to) }),
      end: (to) => {
        setPull(null);
        const pin = pinUnder(to);
        if (pin) latest.current.onGive(line, pin);
      },
      cancel: () => setPull(null),
    });
  }, []);
  return { pull, grab };
}
