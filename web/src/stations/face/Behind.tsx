/** The panel as a hand behind it meets it, left for right: bodies with their depth, cables, bars. */
import type { ModuleView } from "../../api/types";
import { LINE, placeLabels } from "../../canvas/labels";
import { shown } from "../../ui/figures";
import type { Views } from "./viewTypes";

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
      {views?.boxes.map((k) => (
        <text
          key={k.name}
          transform={`translate(${mirror(Math.min(k.x + k.width, module.width)) + 6 * s} ${k.y + k.height / 2}) scale(${s} ${-s})`}
          dominantBaseline="central"
          {...WORDS}
        >
          {k.name}, {shown(k.clear)} mm free
        </text>
      ))}
      {views && <Names views={views} width={module.width} s={s} />}
    </g>
  );
}

const WORDS = {
  fontFamily: "var(--font-sans)",
  fontSize: 10.5,
  fill: "var(--body-ink)",
  stroke: "var(--casing)",
  strokeWidth: 2.5,
  paintOrder: "stroke",
  pointerEvents: "none",
} as const;

/** Each body's name and depth, inside it or beside it with a line. */
function Names({ views, width, s }: { views: Views; width: number; s: number }) {
  const things = views.bodies.map((b) => ({
    name: b.name,
    extra: `${shown(b.depth)} mm`,
    box: {
      x: (width - b.x - b.width / 2) / s,
      y: -(b.y + b.height / 2) / s,
      width: b.width / s,
      height: b.height / s,
    },
  }));
  const labels = placeLabels(things);
  return (
    <g transform={`scale(${s} ${-s})`}>
      {labels.map(({ leader }, n) =>
        leader ? (
          <path
            key={views.bodies[n]?.function}
            d={`M${leader.x0} ${leader.y0}L${leader.x1} ${leader.y1}`}
            stroke="var(--body-edge)"
          />
        ) : null,
      )}
      {labels.map(({ lines, x, y }, n) => (
        <text key={views.bodies[n]?.function} textAnchor="middle" {...WORDS}>
          {lines.map((line, k) => (
            <tspan
              key={k}
              x={x}
              y={y + (k - (lines.length - 1) / 2) * LINE + 3.5}
              fontFamily={k === lines.length - 1 ? "var(--font-mono)" : undefined}
              fill={k === lines.length - 1 && views.bodies[n]?.short ? "var(--on-must)" : undefined}
            >
              {line}
            </tspan>
          ))}
        </text>
      ))}
    </g>
  );
}
