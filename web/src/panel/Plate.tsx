/** The plate itself: a real object, its corner screws, and its size written beside it. */
import type { ModuleView } from "../api/types";
import { shown } from "../ui/figures";

export function Plate({ module, colour }: { module: ModuleView; colour: string }) {
  return (
    <g>
      <path d={module.path} transform="translate(1.2 -1.6)" fill="#000" opacity={0.16} />
      <path d={module.path} fill={colour} stroke="#000" strokeOpacity={0.5} strokeWidth={0.3} />
      {module.fixings.map((f) => (
        <g key={f.name} transform={`translate(${f.x} ${f.y})`}>
          <circle r={f.head / 2} fill="#9AA2A6" stroke="#5E676B" strokeWidth={0.4} />
          <path d="M-1.5 0H1.5M0 -1.5V1.5" stroke="#40494D" strokeWidth={0.5} transform="rotate(35)" />
        </g>
      ))}
    </g>
  );
}

/** Width below and height at the left, as dimension lines of constant weight on the screen. */
export function Dimensions({ module, scale }: { module: ModuleView; scale: number }) {
  const s = 1 / scale;
  const below = -22 * s;
  const left = -22 * s;
  return (
    <g stroke="var(--faint)" strokeWidth={s} fill="none">
      <path
        d={`M0 ${below}H${module.width}M0 ${below - 6 * s}v${12 * s}M${module.width} ${below - 6 * s}v${12 * s}`}
      />
      <path
        d={`M${left} 0V${module.height}M${left - 6 * s} 0h${12 * s}M${left - 6 * s} ${module.height}h${12 * s}`}
      />
      <Figure x={module.width / 2} y={below} s={s} text={shown(module.width)} />
      <Figure x={left} y={module.height / 2} s={s} text={shown(module.height)} upright />
    </g>
  );
}

function Figure({
  x,
  y,
  s,
  text,
  upright = false,
}: {
  x: number;
  y: number;
  s: number;
  text: string;
  upright?: boolean;
}) {
  const width = text.length * 7.4 + 10;
  return (
    <g transform={`translate(${x} ${y}) scale(${s} ${-s})${upright ? " rotate(-90)" : ""}`} stroke="none">
      <rect x={-width / 2} y={-8} width={width} height={16} fill="var(--desk)" />
      <text
        textAnchor="middle"
        dominantBaseline="central"
        fontFamily="var(--font-mono)"
        fontSize={12}
        fill="var(--ink)"
      >
        {text}
      </text>
    </g>
  );
}

/** The ink that reads on a plate of that colour. */
export function inkOn(colour: string): string {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255);
  const light = 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
  return light > 0.45 ? "#1E262B" : "#EDE9DD";
}
