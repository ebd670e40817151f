/** Two points and the way between them; a point on a part is its centre. */
import { shown } from "../../ui/figures";

interface At {
  x: number;
  y: number;
}

export interface Measuring {
  from: At | null;
  to: At | null;
}

export function Measure({ measured: { from, to }, scale }: { measured: Measuring; scale: number }) {
  if (!from) return null;
  const s = 1 / scale;
  const end = to ?? from;
  const text = `${shown(Math.hypot(end.x - from.x, end.y - from.y), 2)}  ↔ ${shown(Math.abs(end.x - from.x), 2)}  ↕ ${shown(Math.abs(end.y - from.y), 2)}`;
  return (
    <g pointerEvents="none">
      <path d={`M${from.x} ${from.y}L${end.x} ${end.y}`} stroke="#D9542B" strokeWidth={1.5 * s} />
      {[from, end].map((p, n) => (
        <circle key={n} cx={p.x} cy={p.y} r={3 * s} fill="#D9542B" />
      ))}
      {to && (
        <g transform={`translate(${(from.x + to.x) / 2} ${(from.y + to.y) / 2 + 12 * s}) scale(${s} ${-s})`}>
          <rect x={-105} y={-10} width={210} height={20} rx={3} fill="#1E262B" />
          <text
            role="status"
            textAnchor="middle"
            dominantBaseline="central"
            fontFamily="var(--font-mono)"
            fontSize={12}
            fill="#F5F2EA"
          >
            {text}
          </text>
        </g>
      )}
    </g>
  );
}
