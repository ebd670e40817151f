/** The opening of a new panel and the beds of the machines, at one scale. */
import type { DesignView, NewMachine } from "../api/types";
import { shown } from "../ui/figures";

export interface Answers {
  name: string;
  kind: DesignView["design"]["brief"]["kind"];
  width: number;
  height: number;
  depth: number;
  machines: NewMachine[];
}

export function NewPicture({ answers }: { answers: Answers }) {
  const { width, height, machines } = answers;
  const widest = Math.max(width, ...machines.map((m) => m.bed_width));
  const highest = Math.max(height, ...machines.map((m) => m.bed_height));
  const s = Math.max(widest / 260, highest / 260);
  const beds = machines.length ? " and the beds" : "";
  return (
    <svg
      viewBox={`${-20 * s} ${-30 * s} ${widest + 40 * s} ${highest + 60 * s}`}
      className="h-80 w-full rounded bg-desk p-2"
      role="img"
      aria-label={`Opening ${shown(width)} by ${shown(height)} mm${beds}`}
    >
      <g transform={`translate(0 ${highest}) scale(1 -1)`}>
        <rect width={width} height={height} rx={3} fill="var(--plate)" />
        {machines.map((m) => (
          <rect
            key={m.kind}
            width={m.bed_width}
            height={m.bed_height}
            fill="none"
            stroke="var(--bed)"
            strokeWidth={1.4 * s}
            strokeDasharray={`${6 * s} ${3 * s}`}
          />
        ))}
      </g>
      <g fontFamily="var(--font-mono)" fontSize={11 * s} fill="var(--ink)" textAnchor="middle">
        <text x={width / 2} y={highest + 18 * s}>
          {shown(width)} × {shown(height)}
        </text>
        {machines.map((m, n) => (
          <text
            key={m.kind}
            x={m.bed_width / 2}
            y={highest - m.bed_height - (6 + 12 * n) * s}
            fill="var(--bed)"
          >
            {m.name}
          </text>
        ))}
      </g>
    </svg>
  );
}
