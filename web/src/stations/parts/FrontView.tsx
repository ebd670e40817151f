/** A part from the front: its face, its hole, its body behind, its key and its detents. */
import type { Part } from "../../api/types";
import { Outline, PartFront, reach } from "../../panel/shapes";

export function FrontView({ part, used }: { part: Part; used: number | undefined }) {
  const size =
    Math.max(...[part.cover, part.body, part.hole].map(reach).flatMap((s) => [s.width, s.height])) / 2 + 5;
  const hidden = {
    stroke: "var(--faint)",
    strokeWidth: size / 120,
    strokeDasharray: `${size / 20} ${size / 30}`,
  };
  return (
    <svg
      viewBox={`${-size} ${-size} ${2 * size} ${2 * size}`}
      className="h-40 w-full"
      role="img"
      aria-label={`${part.name} from the front`}
    >
      <g transform="scale(1 -1)">
        <Outline shape={part.body} x={part.behind_x} y={part.behind_y} {...hidden} fill="var(--desk)" />
        {part.steps.map((s, n) => (
          <Outline key={n} shape={s.shape} x={s.x} y={s.y} turn={s.turn} {...hidden} fill="none" />
        ))}
        <PartFront front={part.front} />
        <Outline shape={part.hole} fill="none" stroke="var(--petrol)" strokeWidth={size / 60} />
        {part.extras.map((e, n) => (
          <Outline
            key={n}
            shape={e.shape}
            x={e.x}
            y={e.y}
            turn={e.turn}
            fill="none"
            stroke="var(--petrol)"
            strokeWidth={size / 60}
          />
        ))}
        {part.key && (
          <g transform={`rotate(${part.key.angle}) translate(${part.key.radius} 0)`}>
            <rect
              x={-part.key.length / 2}
              y={-part.key.width / 2}
              width={part.key.length}
              height={part.key.width}
              fill="var(--must)"
            />
          </g>
        )}
        <Detents part={part} size={size} used={used ?? part.detents?.ways ?? 0} />
      </g>
    </svg>
  );
}

/** A dot a position of the mechanism; hollow where a stop leaves it unused. */
function Detents({ part, size, used }: { part: Part; size: number; used: number }) {
  const { detents } = part;
  if (!detents) return null;
  const all = detents.mechanism ?? Math.round(360 / detents.step);
  const first = 90 + (detents.step * (used - 1)) / 2;
  return Array.from({ length: all }, (_, n) => {
    const a = ((first - n * detents.step) * Math.PI) / 180;
    return (
      <circle
        key={n}
        cx={Math.cos(a) * (size - 2)}
        cy={Math.sin(a) * (size - 2)}
        r={size / 22}
        fill={n < used ? "var(--petrol)" : "var(--card)"}
        stroke="var(--petrol)"
        strokeWidth={size / 90}
      />
    );
  });
}
