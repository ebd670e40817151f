/** Live distances: to the nearest neighbours and the edge; the one that is too short turns into a filled label. */
import type { Surroundings } from "../api/types";
import { Cased } from "../canvas/Cased";
import { Tag } from "../canvas/Tag";
import { shown } from "../ui/figures";

interface Point {
  x: number;
  y: number;
}

export function Distances({ around, scale }: { around: Surroundings; scale: number }) {
  return (
    <g pointerEvents="none">
      <Span
        from={around.edge.start}
        to={around.edge.end}
        text={shown(around.edge.gap)}
        short={around.edge.gap < 0}
        scale={scale}
        faint
      />
      {around.neighbours.map((n) => (
        <Span key={n.function} from={n.start} to={n.end} text={shown(n.gap)} short={n.short} scale={scale} />
      ))}
    </g>
  );
}

interface SpanProps {
  from: Point;
  to: Point;
  text: string;
  short: boolean;
  scale: number;
  faint?: boolean;
}

function Span({ from, to, text, short, scale, faint = false }: SpanProps) {
  const s = 1 / scale;
  const colour = short ? "var(--on-must)" : faint ? "var(--on-note)" : "var(--guide)";
  const line = `M${from.x} ${from.y}L${to.x} ${to.y}`;
  return (
    <g>
      <Cased d={line} scale={scale} colour={colour} {...(short ? {} : { dashes: [3, 2] })} />
      <circle cx={from.x} cy={from.y} r={2 * s} fill={colour} />
      <circle cx={to.x} cy={to.y} r={2 * s} fill={colour} />
      <Tag
        x={(from.x + to.x) / 2}
        y={(from.y + to.y) / 2}
        scale={scale}
        text={text}
        ink={short ? "var(--casing)" : colour}
        ground={short ? colour : "var(--casing)"}
        edge={colour}
      />
    </g>
  );
}
