/** A part on its way from the tray: follows the pointer, snapped, until it is let go over the plate. */
import { type RefObject, useEffect, useRef, useState } from "react";
import { place } from "../../api/commands";
import type { Fn, ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
import { PartFront } from "../../panel/shapes";
import { matrix, px, toModule, type Viewport } from "../../panel/units";
import { probe, stopProbing } from "./probe";
import { snap, type Snapped } from "./snap";

interface Props {
  fn: Fn;
  module: ModuleView;
  viewport: Viewport;
  frame: RefObject<HTMLDivElement | null>;
  others: readonly Fn[];
  onSnap: (lines: Snapped["lines"]) => void;
  onDrop: (spot: { x: number; y: number } | null) => void;
}

export function Carried({ fn, module, viewport, frame, others, onSnap, onDrop }: Props) {
  const { id, revision, design } = useDesign();
  const [spot, setSpot] = useState<Snapped | null>(null);
  const letGoAt = useRef<Snapped | null>(null);
  const part = design.parts.find((p) => p.id === fn.part);
  useEffect(() => {
    const moved = (event: PointerEvent) => {
      const bounds = frame.current?.getBoundingClientRect();
      if (!bounds) return;
      const at = toModule(viewport, px(event.clientX - bounds.left), px(event.clientY - bounds.top));
      const inside = at.x > 0 && at.y > 0 && at.x < module.width && at.y < module.height;
      const over = inside ? snap(at.x, at.y, others, event.altKey) : null;
      letGoAt.current = over;
      setSpot(over);
      onSnap(over?.lines ?? {});
      if (over)
        probe({
          design: id,
          base: revision,
          lead: fn.id,
          commands: [place(fn.id, module.id, over.x, over.y)],
        });
    };
    const done = (result: Snapped | null) => {
      stopProbing();
      onSnap({});
      onDrop(result);
    };
    const up = () => done(letGoAt.current);
    const key = (event: KeyboardEvent) => {
      if (event.key === "Escape") done(null);
    };
    window.addEventListener("pointermove", moved);
    window.addEventListener("pointerup", up);
    window.addEventListener("keydown", key, true);
    return () => {
      window.removeEventListener("pointermove", moved);
      window.removeEventListener("pointerup", up);
      window.removeEventListener("keydown", key, true);
    };
  });
  if (!spot || !part) return null;
  return (
    <g transform={matrix(viewport)} opacity={0.85} pointerEvents="none">
      <g transform={`translate(${spot.x} ${spot.y})`}>
        <PartFront front={part.front} />
      </g>
    </g>
  );
}
