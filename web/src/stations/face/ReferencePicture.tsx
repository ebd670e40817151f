/** The reference picture under the panel as the core squared it, and picking points on it. */
import type { RefObject } from "react";
import type { ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
import type { Viewport } from "../../canvas/camera";
import { onScreen, through } from "./picture";
import { useFace } from "./store";
import type { Reference, Views } from "./viewTypes";

interface Props {
  module: ModuleView;
  views: Views | undefined;
  viewport: Viewport;
}

/** The picture of this panel, and the map from its pixels (right way round) to mm. */
export function useLying(module: ModuleView, views: Views | undefined) {
  const { design } = useDesign();
  const reference = design.references.find((r) => r.module === module.id);
  const lies = views?.references.find((r) => r.id === reference?.id);
  const map = lies?.matrix ?? null;
  return { reference, lies, map };
}

export function ReferencePicture({ module, views, viewport }: Props) {
  const { reference, lies, map } = useLying(module, views);
  if (!reference || !map || reference.hidden) return null;
  return (
    <>
      <img
        src={`/api/pictures/${reference.picture}`}
        alt="Reference"
        draggable={false}
        className="pointer-events-none absolute top-0 left-0 max-w-none origin-top-left"
        style={{
          width: reference.width,
          height: reference.height,
          opacity: 0.25 + 0.75 * reference.opacity,
          transform: `${onScreen(map, viewport).toString()}${reference.mirrored ? ` translate(${reference.width}px,0) scale(-1,1)` : ""}`,
        }}
      />
      <Traces viewport={viewport} holes={lies?.holes ?? []} />
    </>
  );
}

function Traces({ viewport: v, holes }: { viewport: Viewport; holes: Views["references"][number]["holes"] }) {
  return (
    <svg className="pointer-events-none absolute inset-0 z-10 size-full" aria-hidden="true">
      {holes.map((h) => (
        <g key={h.id} transform={`translate(${v.left + h.x * v.scale} ${v.top - h.y * v.scale})`}>
          <circle r={(h.diameter / 2) * v.scale} fill="none" stroke="var(--measure)" strokeWidth={1.6} />
          <path d="M-5 0H5M0 -5V5" stroke="var(--measure)" strokeWidth={1.2} />
        </g>
      ))}
    </svg>
  );
}

interface PickProps extends Props {
  frame: RefObject<HTMLDivElement | null>;
}

/** Clicks on the picture while points are picked; each is drawn with its number. */
export function PicturePoints({ module, views, viewport, frame }: PickProps) {
  const { reference, map } = useLying(module, views);
  const face = useFace();
  if (!reference || !map) return null;
  const screen = onScreen(map, viewport);
  const back = screen.inverse();
  const pick = (event: React.PointerEvent) => {
    event.stopPropagation();
    const bounds = frame.current?.getBoundingClientRect();
    if (!bounds || event.button !== 0) return;
    const upright = through(back, event.clientX - bounds.left, event.clientY - bounds.top);
    face.set({ picked: [...face.picked, turned(reference, upright)] });
  };
  return (
    <svg
      role="application"
      aria-label="Points on the picture"
      data-picking={face.picking}
      className="absolute inset-0 z-20 size-full cursor-crosshair"
      onPointerDown={pick}
    >
      {face.picked.map((p, n) => {
        const at = through(screen, ...pair(turned(reference, p)));
        return (
          <g key={n} transform={`translate(${at.x} ${at.y})`}>
            <circle r={6} fill="none" stroke="var(--measure)" strokeWidth={2} />
            <path d="M-10 0H-3M3 0H10M0 -10V-3M0 3V10" stroke="var(--measure)" strokeWidth={1.4} />
            <text x={9} y={-7} fontFamily="var(--font-mono)" fontSize={12} fill="var(--measure)">
              {n + 1}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

interface Point {
  x: number;
  y: number;
}

const pair = (p: Point): [number, number] => [p.x, p.y];

/** A pixel of the kept picture as it is shown, or back: mirrored pictures are turned over first. */
const turned = (reference: Reference, p: Point): Point =>
  reference.mirrored ? { x: reference.width - p.x, y: p.y } : p;
