/** A figure or a few words on a drawing, the same size on the screen at every zoom. */
interface Props {
  /** Where its middle stands (mm). */
  x: number;
  y: number;
  scale: number;
  text: string;
  /** The words' colour, and the label's own; both are tokens. */
  ink?: string;
  ground?: string;
  edge?: string;
  upright?: boolean;
  status?: boolean;
}

const LETTER = 7.3;

export function Tag({
  x,
  y,
  scale,
  text,
  ink = "var(--tag-ink)",
  ground = "var(--tag)",
  edge = "none",
  upright = false,
  status = false,
}: Props) {
  const s = 1 / scale;
  const width = text.length * LETTER + 10;
  return (
    <g
      transform={`translate(${x} ${y}) scale(${s} ${-s})${upright ? " rotate(-90)" : ""}`}
      stroke="none"
      pointerEvents="none"
    >
      <rect x={-width / 2} y={-9} width={width} height={18} rx={3} fill={ground} stroke={edge} />
      <text
        role={status ? "status" : undefined}
        textAnchor="middle"
        dominantBaseline="central"
        fontFamily="var(--font-mono)"
        fontSize={12}
        fill={ink}
      >
        {text}
      </text>
    </g>
  );
}
