/** A case: unfolded, its back in the middle and the walls laid out round it; or what is printed of it, as a picture. */
import { useRef } from "react";
import type { StackView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { Canvas } from "../../canvas/Canvas";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { many, shown } from "../../ui/figures";

type Made = NonNullable<StackView["case"]>;

export function CaseDrawing({ stack, made }: { stack: StackView; made: Made }) {
  return made.printed.length > 0 ? (
    <Printed stack={stack} made={made} />
  ) : (
    <Unfolded stack={stack} made={made} />
  );
}

/** What is printed, seen from above: pieces a little apart. */
function Printed({ stack, made }: { stack: StackView; made: Made }) {
  const { id, revision } = useDesign();
  const pieces = made.printed.filter((p) => p.id !== "case-hatch");
  return (
    <>
      <div className="relative min-h-0 flex-1 max-[900px]:h-64 max-[900px]:flex-none">
        <img
          className="absolute inset-0 size-full object-contain p-4"
          src={`/api/designs/${id}/stack/${stack.module}/case.png?revision=${revision}`}
          alt={`The printed case, ${many(pieces.length, "piece")}`}
        />
      </div>
      <p className="flex min-h-9 items-center border-t border-rule bg-card px-4 text-[11px] text-faint">
        {pieces.length > 1
          ? "Its pieces a little apart, as they are printed; the hatch's cover is a piece of its own"
          : "As it is printed, its back down; the hatch's cover is a piece of its own"}
      </p>
    </>
  );
}

const SIDES = ["case-left", "case-right"];
/** Width (pixels) of a letter of a tag. */
const LETTER = 7.5;

function Unfolded({ stack, made }: { stack: StackView; made: Made }) {
  const { id } = useDesign();
  const frame = useRef<HTMLDivElement>(null);
  const [wide = 0, high = 0, deep = 0] = made.inside;
  const t = made.case.thickness;
  const extent = {
    x: -t - deep,
    y: -t - deep,
    width: wide + 2 * (t + deep),
    height: high + 2 * (t + deep),
  };
  const camera = useCamera(frame, extent, { name: `case ${id} ${stack.module}`, room: 26 });
  const { scale } = camera.viewport;
  const flat = made.pieces.filter((p) => p.path !== "");
  // Vents are in the middle of their walls: those walls' names stand beside them.
  const aside = made.case.vents ? wide / 4 : wide / 2;
  const middle: Record<string, readonly [number, number]> = {
    "case-back": [wide / 2, high / 2],
    "case-top": [aside, high + t + deep / 2],
    "case-bottom": [aside, -t - deep / 2],
    "case-left": [-t - deep / 2, high / 2],
    "case-right": [wide + t + deep / 2, high / 2],
  };
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-64"
        drawing={{ role: "img", "aria-label": "The case unfolded" }}
      >
        {flat.map((p) => (
          <path
            key={p.id}
            d={p.path}
            fill="var(--wood)"
            fillRule="evenodd"
            stroke="var(--body-edge)"
            strokeWidth={1.2 / scale}
          />
        ))}
        {flat.map((p) => {
          const [x, y] = middle[p.id] ?? [0, 0];
          const size = `${shown(p.width)} × ${shown(p.height)}`;
          const upright = SIDES.includes(p.id) && deep * scale < size.length * LETTER;
          const tag = { scale, upright, ink: "var(--ink)", ground: "var(--sheet)" };
          const by = 9 / scale;
          return (
            <g key={p.id}>
              <Tag {...tag} x={upright ? x - by : x} y={upright ? y : y + by} text={p.name} />
              <Tag {...tag} x={upright ? x + by : x} y={upright ? y : y - by} text={size} />
            </g>
          );
        })}
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 text-[11px] text-faint">
        <p className="min-w-0 flex-1 truncate">
          Seen from inside, the back in the middle; strips and covers are in the cutting list
        </p>
        <Looking camera={camera} />
      </div>
    </>
  );
}
