/** The panel as a hand behind it meets it, left for right: bodies with their depth, cables, bars. */
import type { ModuleView } from "../../api/types";
import { shown } from "../../ui/figures";
import type { Views } from "./viewTypes";

const LETTER = 5.2;

/** A name in one or two lines that stay about as wide as its body (pixels). */
function fitted(name: string, width: number): string[] {
  const most = Math.max(6, Math.floor((width + 14) / LETTER));
  if (name.length <= most) return [name];
  const space = name.lastIndexOf(" ", most);
  const lines = space > 0 ? [name.slice(0, space), name.slice(space + 1)] : [name];
  return lines.map((line) => (line.length > most ? `${line.slice(0, most - 1)}…` : line));
}

export function BehindView({
  module,
  views,
  scale,
}: {
  module: ModuleView;
  views: Views | undefined;
  scale: number;
}) {
  const s = 1 / scale;
  const mirror = (x: number) => module.width - x;
  return (
    <g aria-label={`${module.name} from behind`}>
      <g transform={`translate(${module.width} 0) scale(-1 1)`}>
        <path d={module.path} fill={module.back_colour} stroke="var(--body-edge)" strokeWidth={s} />
        {module.fixings.map((f) => (
          <circle
            key={f.name}
            cx={f.x}
            cy={f.y}
            r={f.head / 2}
            fill="var(--metal)"
            stroke="var(--metal-edge)"
            strokeWidth={s}
          />
        ))}
        {views?.bodies.map((b) => (
          <g key={b.function}>
            {b.cable && (
              <path
                d={b.cable}
                fill="none"
                stroke="var(--body-edge)"
                strokeWidth={s}
                strokeDasharray={`${4 * s} ${3 * s}`}
              />
            )}
            <path
              d={b.path}
              fill={b.short ? "var(--body-short)" : "var(--body-light)"}
              stroke={b.short ? "var(--on-must)" : "var(--body-edge)"}
              strokeWidth={1.2 * s}
            />
          </g>
        ))}
        <clipPath id={`back-${module.id}`}>
          <path d={module.path} />
        </clipPath>
        {views?.boxes.map((k) => (
          <path
            clipPath={`url(#back-${module.id})`}
            key={k.name}
            d={k.path}
            fill="var(--bar)"
            fillOpacity={0.35}
            stroke="var(--bar-edge)"
            strokeWidth={1.2 * s}
            strokeDasharray={`${6 * s} ${4 * s}`}
          />
        ))}
      </g>
      {views?.bodies.map((b) => (
        <g
          key={b.function}
          transform={`translate(${mirror(b.x)} ${b.y}) scale(${s} ${-s})`}
          pointerEvents="none"
        >
          {fitted(b.name, b.width * scale).map((line, n, all) => (
            <text
              key={n}
              textAnchor="middle"
              y={12 * n + 3 - 6 * all.length}
              fontFamily="var(--font-sans)"
              fontSize={10.5}
              fill="var(--body-ink)"
            >
              {line}
            </text>
          ))}
          <text
            textAnchor="middle"
            y={3 + 6 * fitted(b.name, b.width * scale).length}
            fontFamily="var(--font-mono)"
            fontSize={10.5}
            fill={b.short ? "var(--on-must)" : "var(--body-ink)"}
          >
            {shown(b.depth, 0)}
          </text>
        </g>
      ))}
    </g>
  );
}
