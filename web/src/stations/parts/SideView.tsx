/** A section through a part and the layers it sits in; the front is at the left. */
import type { PartSheet } from "../../api/types";
import { shown } from "../../ui/figures";

type Box = PartSheet["side"][number];

const FILL: Record<Box["kind"], string> = {
  layer: "#D9D5C8",
  front: "#4B565A",
  bush: "#B9A878",
  nut: "#8A7B4E",
  body: "#8C9499",
  plug: "none",
};

export function SideView({ side, freeDepth }: { side: Box[]; freeDepth: number }) {
  const layers = side.filter((b) => b.kind === "layer");
  const rest = side.filter((b) => b.kind !== "layer");
  const z0 = Math.min(...side.map((b) => b.z0)) - 3;
  const deepest = Math.max(...side.map((b) => b.z1));
  const z1 = Math.max(deepest, Math.min(freeDepth, deepest + 25)) + 3;
  const half = Math.max(...rest.map((b) => b.half), 12) + 8;
  const s = Math.max(z1 - z0, 2 * half) / 160;
  const stack = layers.at(-1)?.z1 ?? 0;
  return (
    <svg
      viewBox={`${z0} ${-half - 8 * s} ${z1 - z0} ${2 * half + 16 * s}`}
      className="h-40 w-full"
      role="img"
      aria-label={`Section: ${shown(deepest)} mm deep of ${shown(freeDepth)} free`}
    >
      {layers.map((b, n) => (
        <g key={n} fill={b.colour ?? FILL.layer} stroke="#20272A" strokeWidth={0.5 * s}>
          <rect x={b.z0} y={-half} width={b.z1 - b.z0} height={half - b.half} />
          <rect x={b.z0} y={b.half} width={b.z1 - b.z0} height={half - b.half} />
        </g>
      ))}
      {rest.map((b, n) => (
        <rect
          key={n}
          x={b.z0}
          y={-b.half}
          width={b.z1 - b.z0}
          height={2 * b.half}
          fill={FILL[b.kind]}
          stroke={b.kind === "plug" ? "var(--faint)" : "#20272A"}
          strokeWidth={0.6 * s}
          strokeDasharray={b.kind === "plug" ? `${2 * s} ${1.5 * s}` : undefined}
        />
      ))}
      {freeDepth <= z1 && (
        <path
          d={`M${freeDepth} ${-half}V${half}`}
          stroke="#B3261E"
          strokeWidth={s}
          strokeDasharray={`${3 * s} ${2 * s}`}
        />
      )}
      <text
        x={stack / 2}
        y={-half - 2 * s}
        fontFamily="var(--font-mono)"
        fontSize={9 * s}
        textAnchor="middle"
        fill="var(--ink)"
      >
        {shown(stack)}
      </text>
    </svg>
  );
}
