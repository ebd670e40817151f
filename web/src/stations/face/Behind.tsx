/** The panel as a hand behind it meets it, left for right: bodies with their depth, cables, bars. */
import type { ModuleView } from "../../api/types";
import { Names, WORDS } from "../../canvas/Names";
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
      {views && (
        <Names
          scale={scale}
          things={views.bodies.map((b) => ({
            id: b.function,
            name: b.name,
            extra: `${shown(b.depth)} mm`,
            wrong: b.short,
            x: mirror(b.x),
            y: b.y,
            width: b.width,
            height: b.height,
          }))}
        />
      )}
    </g>
  );
}
