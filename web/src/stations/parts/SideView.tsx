/** The section through a part along its upright line, in the layers it sits in; the front is at the left. */
import type { PartSheet } from "../../api/types";
import { shown } from "../../ui/figures";
import { SOLIDS } from "./solids";

type Box = PartSheet["side"][number];

export function SideView({ side, freeDepth }: { side: Box[]; freeDepth: number }) {
  const sheets = side.filter((b) => b.kind === "sheet");
  const z0 = Math.min(...side.map((b) => b.z0)) - 3;
  const deepest = Math.max(...side.map((b) => b.z1));
  const z1 = Math.max(deepest, Math.min(freeDepth, deepest + 25)) + 3;
  const [low, high] = [Math.min(...side.map((b) => b.y0)), Math.max(...side.map((b) => b.y1))];
  const s = Math.max(z1 - z0, high - low) / 160;
  const solid = Math.max(...sheets.map((b) => b.z1));
  return (
    <svg
      viewBox={`${z0} ${-high - 10 * s} ${z1 - z0} ${high - low + 12 * s}`}
      className="h-40 w-full"
      role="img"
      aria-label={`Section: ${shown(deepest)} mm deep of ${shown(freeDepth)} free`}
    >
      {side.map((b, n) => (
        <rect
          key={n}
          x={b.z0}
          y={-b.y1}
          width={b.z1 - b.z0}
          height={b.y1 - b.y0}
          fill={b.colour ?? SOLIDS[b.kind] ?? "none"}
          stroke={b.kind === "plug" ? "var(--faint)" : "var(--body-edge)"}
          strokeWidth={0.6 * s}
          strokeDasharray={b.kind === "plug" ? `${2 * s} ${1.5 * s}` : undefined}
        />
      ))}
      {freeDepth <= z1 && (
        <path
          d={`M${freeDepth} ${-high}V${-low}`}
          stroke="var(--must)"
          strokeWidth={s}
          strokeDasharray={`${3 * s} ${2 * s}`}
        />
      )}
      <text
        x={solid / 2}
        y={-high - 2 * s}
        fontFamily="var(--font-mono)"
        fontSize={9 * s}
        textAnchor="middle"
        fill="var(--ink)"
      >
        {shown(solid)}
      </text>
    </svg>
  );
}
