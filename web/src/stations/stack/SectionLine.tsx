/** The line of the section: its two ends are dragged, and moved by arrow keys. */
import { Cased } from "../../canvas/Cased";
import { useDragMm } from "../../canvas/useDragMm";
import type { Line } from "./store";

interface Props {
  line: Line;
  scale: number;
  onChange: (line: Line) => void;
}

export function SectionLine({ line, scale, onChange }: Props) {
  const first = useDragMm(({ dx, dy }) => {
    onChange({ ...line, x0: line.x0 + dx, y0: line.y0 + dy });
    return undefined;
  });
  const second = useDragMm(({ dx, dy }) => {
    onChange({ ...line, x1: line.x1 + dx, y1: line.y1 + dy });
    return undefined;
  });
  const a = { x: line.x0 + (first.shift?.dx ?? 0), y: line.y0 + (first.shift?.dy ?? 0) };
  const b = { x: line.x1 + (second.shift?.dx ?? 0), y: line.y1 + (second.shift?.dy ?? 0) };
  const s = 1 / scale;
  return (
    <g>
      <Cased d={`M${a.x} ${a.y}L${b.x} ${b.y}`} scale={scale} colour="var(--chosen)" dashes={[9, 3, 2, 3]} />
      {(
        [
          ["Start of the section", a, first.grip],
          ["End of the section", b, second.grip],
        ] as const
      ).map(([label, at, grip]) => (
        <circle
          key={label}
          data-grip=""
          role="button"
          tabIndex={0}
          aria-label={`${label}: drag, or move by arrow keys`}
          cx={at.x}
          cy={at.y}
          r={6 * s}
          fill="var(--sheet)"
          stroke="var(--chosen)"
          strokeWidth={2 * s}
          className="cursor-move outline-offset-2"
          {...grip}
        />
      ))}
    </g>
  );
}
