/** Hands: the room round what is touched, guards, what the free hand reaches, and the sweeps of procedures. */
import type { ModuleView } from "../../api/types";
import { Cased } from "../../canvas/Cased";
import type { Views } from "./viewTypes";

interface Props {
  views: Views;
  module: ModuleView;
  scale: number;
}

export function HandsOverlay({ views, module, scale }: Props) {
  const s = 1 / scale;
  return (
    <g pointerEvents="none" fill="none">
      <clipPath id={`plate-${module.id}`}>
        <path d={module.path} />
      </clipPath>
      <g clipPath={`url(#plate-${module.id})`}>
        {views.zones.map((z) => (
          <Cased
            key={z.hand + z.name}
            d={`M${z.x - z.radius} ${z.y}a${z.radius} ${z.radius} 0 1 0 ${2 * z.radius} 0a${z.radius} ${z.radius} 0 1 0 ${-2 * z.radius} 0Z`}
            scale={scale}
            colour="var(--on-reach)"
            width={1.5}
            fill={z.name === "primary" ? "var(--on-reach)" : "none"}
            fillOpacity={0.14}
            {...(z.name === "primary" ? {} : { dashes: [8, 5] })}
          />
        ))}
      </g>
      {views.hands.map((h) => (
        <g key={h.function}>
          <Cased d={h.room} scale={scale} colour="var(--on-note)" width={1} dashes={[3, 3]} />
          <Cased
            d={h.touched}
            scale={scale}
            colour={h.guard ? "var(--on-judge)" : "var(--on-ok)"}
            width={1.2}
            fill={h.guard ? "var(--on-judge)" : "var(--on-ok)"}
            fillOpacity={0.35}
          />
        </g>
      ))}
      {views.sweeps.map((sweep) => (
        <Sweep key={sweep.procedure} sweep={sweep} s={s} />
      ))}
    </g>
  );
}

function Sweep({ sweep, s }: { sweep: Views["sweeps"][number]; s: number }) {
  return (
    <g>
      {sweep.steps.map((step, n) => {
        const before = sweep.steps[n - 1];
        const broken = sweep.broken.includes(n);
        return (
          before && (
            <Cased
              key={step.function}
              d={`M${before.x} ${before.y}L${step.x} ${step.y}`}
              scale={1 / s}
              colour={broken ? "var(--on-must)" : "var(--on-sweep)"}
              width={2.4}
              {...(broken ? { dashes: [2, 5] } : {})}
            />
          )
        );
      })}
      {sweep.steps.map((step, n) => (
        <g key={step.function} transform={`translate(${step.x} ${step.y})`}>
          <circle
            r={8 * s}
            stroke="var(--casing)"
            strokeWidth={1.2 * s}
            fill={step.odd ? "var(--on-must)" : "var(--on-sweep)"}
          />
          {step.off != null && (
            <path
              d={`M${9 * s} 0L${20 * s} 0M${15 * s} ${4 * s}L${20 * s} 0L${15 * s} ${-4 * s}`}
              transform={`rotate(${step.off})`}
              stroke={step.odd ? "var(--on-must)" : "var(--on-sweep)"}
              strokeWidth={2 * s}
            />
          )}
          <text
            transform={`scale(${s} ${-s})`}
            textAnchor="middle"
            dominantBaseline="central"
            fontFamily="var(--font-mono)"
            fontSize={11}
            fill="var(--casing)"
          >
            {n + 1}
          </text>
        </g>
      ))}
    </g>
  );
}
