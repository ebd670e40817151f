/** The plate itself: a real object, its corner screws, and its size written beside it. */
import type { ModuleView } from "../api/types";
import { Tag } from "../canvas/Tag";
import { shown } from "../ui/figures";

const SIZE = { ink: "var(--ink)", ground: "var(--desk)" };

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
      <Tag x={module.width / 2} y={below} scale={scale} text={shown(module.width)} {...SIZE} />
      <Tag x={left} y={module.height / 2} scale={scale} text={shown(module.height)} upright {...SIZE} />
    </g>
  );
}

/** The ink that reads on a plate of that colour. */
export function inkOn(colour: string): string {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16) / 255);
  const light = 0.2126 * (r ?? 0) + 0.7152 * (g ?? 0) + 0.0722 * (b ?? 0);
  return light > 0.45 ? "#1E262B" : "#EDE9DD";
}
