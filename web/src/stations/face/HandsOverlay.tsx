/** Hands: the room round what is touched, guards, what the free hand reaches, and the sweeps of procedures. */
import type { ModuleView } from "../../api/types";
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
          <circle
            key={z.hand + z.name}
            cx={z.x}
            cy={z.y}
            r={z.radius}
            fill={z.name === "primary" ? "#4FB3BC" : "none"}
            fillOpacity={0.12}
            stroke="#4FB3BC"
            strokeWidth={1.5 * s}
            strokeDasharray={z.name === "primary" ? undefined : `${8 * s} ${5 * s}`}
          />
        ))}
      </g>
      {views.hands.map((h) => (
        <g key={h.function}>
          <path
            d={h.room}
            stroke="#E6E1D6"
            strokeOpacity={0.55}
            strokeWidth={s}
            strokeDasharray={`${3 * s} ${3 * s}`}
          />
          <path
            d={h.touched}
            fill={h.guard ? "#E0B050" : "#7FC093"}
            fillOpacity={0.3}
            stroke={h.guard ? "#E0B050" : "#7FC093"}
            strokeWidth={s}
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
            <path
              key={step.function}
              d={`M${before.x} ${before.y}L${step.x} ${step.y}`}
              stroke={broken ? "#FF8A80" : "#F4D58A"}
              strokeWidth={2.4 * s}
              strokeDasharray={broken ? `${2 * s} ${5 * s}` : undefined}
            />
          )
        );
      })}
      {sweep.steps.map((step, n) => (
        <g key={step.function} transform={`translate(${step.x} ${step.y})`}>
          <circle r={8 * s} fill={step.odd ? "#FF8A80" : "#F4D58A"} />
          {step.off != null && (
            <path
              d={`M${9 * s} 0L${20 * s} 0M${15 * s} ${4 * s}L${20 * s} 0L${15 * s} ${-4 * s}`}
              transform={`rotate(${step.off})`}
              stroke={step.odd ? "#FF8A80" : "#F4D58A"}
              strokeWidth={2 * s}
            />
          )}
          <text
            transform={`scale(${s} ${-s})`}
            textAnchor="middle"
            dominantBaseline="central"
            fontFamily="var(--font-mono)"
            fontSize={11}
            fill="#1E262B"
          >
            {n + 1}
          </text>
        </g>
      ))}
    </g>
  );
}
