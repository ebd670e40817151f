/** A part from the front: its face, its hole, its body behind, its key and its detents. */
import type { Part } from "../../api/types";
import { Outline, PartFront, reach } from "../../panel/shapes";

interface Props {
  part: Part;
  /** How many of its ways are used. */
  used: number | undefined;
  /** Where the detents stand (degrees), by how many ways are used. */
  detents: readonly (readonly number[])[];
}

export function FrontView({ part, used, detents }: Props) {
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
        <Detents angles={detents.at((used ?? 0) - 1) ?? []} size={size} used={used ?? detents.length} />
      </g>
    </svg>
  );
}

/** A dot a position of the mechanism; hollow where a stop leaves it unused. */
function Detents({ angles, size, used }: { angles: readonly number[]; size: number; used: number }) {
  return angles.map((angle, n) => {
    const a = (angle * Math.PI) / 180;
    return (
      <circle
        key={angle}
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
