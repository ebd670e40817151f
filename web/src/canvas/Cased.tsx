/** A line in a casing, so that it reads on any plate: the casing on dark ones, the line itself on light ones. */
interface Props {
  d: string;
  scale: number;
  colour: string;
  /** Pixels. */
  width?: number;
  /** Pixels drawn and left out. */
  dashes?: readonly number[];
  fill?: string;
  fillOpacity?: number;
}

export function Cased({ d, scale, colour, width = 1.4, dashes, fill = "none", fillOpacity }: Props) {
  const s = 1 / scale;
  return (
    <>
      <path d={d} fill="none" stroke="var(--casing)" strokeWidth={(width + 2) * s} />
      <path
        d={d}
        fill={fill}
        fillOpacity={fillOpacity}
        stroke={colour}
        strokeWidth={width * s}
        strokeDasharray={dashes?.map((n) => n * s).join(" ")}
      />
    </>
  );
}
