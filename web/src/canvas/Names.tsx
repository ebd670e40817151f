/** Names of what is drawn, inside it or beside it with a line, the same size on the screen at every zoom. */
import { LINE, placeLabels } from "./labels";

export const WORDS = {
  fontFamily: "var(--font-sans)",
  fontSize: 10.5,
  fill: "var(--body-ink)",
  stroke: "var(--casing)",
  strokeWidth: 2.5,
  paintOrder: "stroke",
  pointerEvents: "none",
} as const;

export interface Named {
  id: string;
  name: string;
  /** A figure under the name; it is marked when it is wrong. */
  extra: string;
  wrong: boolean;
  /** The middle and size of the box round it (mm). */
  x: number;
  y: number;
  width: number;
  height: number;
}

export function Names({ things, scale }: { things: readonly Named[]; scale: number }) {
  const s = 1 / scale;
  const boxes = things.map((t) => ({
    name: t.name,
    extra: t.extra,
    box: {
      x: (t.x - t.width / 2) / s,
      y: -(t.y + t.height / 2) / s,
      width: t.width / s,
      height: t.height / s,
    },
  }));
  const labels = placeLabels(boxes);
  return (
    <g transform={`scale(${s} ${-s})`}>
      {labels.map(({ leader }, n) =>
        leader ? (
          <path
            key={things[n]?.id}
            d={`M${leader.x0} ${leader.y0}L${leader.x1} ${leader.y1}`}
            stroke="var(--body-edge)"
          />
        ) : null,
      )}
      {labels.map(({ lines, x, y }, n) => (
        <text key={things[n]?.id} textAnchor="middle" {...WORDS}>
          {lines.map((line, k) => (
            <tspan
              key={k}
              x={x}
              y={y + (k - (lines.length - 1) / 2) * LINE + 3.5}
              fontFamily={k === lines.length - 1 ? "var(--font-mono)" : undefined}
              fill={k === lines.length - 1 && things[n]?.wrong ? "var(--on-must)" : undefined}
            >
              {line}
            </tspan>
          ))}
        </text>
      ))}
    </g>
  );
}
