/** The frame from the front: battens, their screws, the opening over them, its clear inside and its diagonals. */
import { useRef } from "react";
import type { StackView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { Canvas } from "../../canvas/Canvas";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { shown } from "../../ui/figures";

export function FrameDrawing({ made }: { made: NonNullable<StackView["frame"]> }) {
  const { id } = useDesign();
  const frame = useRef<HTMLDivElement>(null);
  const left = Math.min(...made.battens.map((b) => b.x0));
  const low = Math.min(...made.battens.map((b) => b.y0));
  const right = Math.max(...made.battens.map((b) => b.x1));
  const high = Math.max(...made.battens.map((b) => b.y1));
  const extent = { x: left, y: low, width: right - left, height: high - low };
  const camera = useCamera(frame, extent, { name: `frame ${id}`, room: 34 });
  const { scale } = camera.viewport;
  const s = 1 / scale;
  const w = made.frame.wide;
  const corner = low + w + (made.clear[1] ?? 0);
  const tag = { scale, ink: "var(--ink)", ground: "var(--sheet)" };
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-64"
        drawing={{ role: "img", "aria-label": "The frame of the opening" }}
      >
        {made.battens.map((b) => (
          <path key={b.name} d={b.path} fill="var(--wood)" stroke="var(--body-edge)" strokeWidth={1.2 * s} />
        ))}
        <path
          d={made.opening}
          fill="none"
          stroke="var(--chosen)"
          strokeWidth={1.5 * s}
          strokeDasharray={`${6 * s} ${4 * s}`}
        />
        <path
          d={`M${left + w} ${low + w}L${right - w} ${corner}M${right - w} ${low + w}L${left + w} ${corner}`}
          stroke="var(--faint)"
          strokeWidth={s}
          strokeDasharray={`${2 * s} ${3 * s}`}
        />
        {made.battens.flatMap((b) =>
          b.screws.map((at, n) => (
            <circle
              key={`${b.name} ${n}`}
              cx={at.x}
              cy={at.y}
              r={2.2}
              fill="var(--metal)"
              stroke="var(--metal-edge)"
              strokeWidth={s}
            />
          )),
        )}
        <Tag
          {...tag}
          x={(left + right) / 2}
          y={(low + w + corner) / 2}
          text={`${shown(made.diagonal)} both ways`}
        />
        <Tag {...tag} x={(left + right) / 2} y={low + w / 2} text={`${shown(right - left)}`} />
        <Tag {...tag} x={left + w / 2} y={(low + w + corner) / 2} text={shown(corner - low - w)} upright />
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 text-[11px] text-faint">
        <p className="min-w-0 flex-1 truncate">
          The opening is dashed; screws go in from outside, {shown(made.from_edge)} mm beside its edge
        </p>
        <Looking camera={camera} />
      </div>
    </>
  );
}
