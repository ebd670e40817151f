/** The plate itself: a real object, its corner screws, and its size written beside it. */
import type { ModuleView } from "../api/types";
import { Tag } from "../canvas/Tag";
import { shown } from "../ui/figures";

const SIZE = { ink: "var(--ink)", ground: "var(--desk)" };

export function Plate({ module, colour }: { module: ModuleView; colour: string }) {
  return (
    <g>
      <path d={module.path} transform="translate(1.2 -1.6)" fill="var(--shadow)" opacity={0.16} />
      <path d={module.path} fill={colour} stroke="var(--shadow)" strokeOpacity={0.5} strokeWidth={0.3} />
      {module.fixings.map((f) => (
        <g key={f.name} transform={`translate(${f.x} ${f.y})`}>
          <circle r={f.head / 2} fill="var(--metal)" stroke="var(--metal-edge)" strokeWidth={0.4} />
          <path
            d="M-1.5 0H1.5M0 -1.5V1.5"
            stroke="var(--metal-dark)"
            strokeWidth={0.5}
            transform="rotate(35)"
          />
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

const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
/** The luminance on which both inks read alike. */
const EVEN = 0.193;

/** The ink that reads on a plate of that colour. */
export function inkOn(colour: string): string {
  const [r = 0, g = 0, b = 0] = [1, 3, 5].map((at) => linear(parseInt(colour.slice(at, at + 2), 16) / 255));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b > EVEN ? "var(--ink-dark)" : "var(--ink-light)";
}
