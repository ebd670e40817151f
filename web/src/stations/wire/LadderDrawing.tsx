/** A ladder on the converter's own scale: each position with the readings that count as it. */
import type { NetworksView } from "../../api/types";

type Ladder = NonNullable<NetworksView["selectors"][number]["ladder"]>;

const LONG = 520;
const LEFT = 8;
const TURNED = 6;

export function LadderDrawing({ words, ladder }: { words: readonly string[]; ladder: Ladder }) {
  const full = ladder.taps.at(-1)?.reading ?? 1;
  const at = (reading: number) => LEFT + (LONG * reading) / full;
  const crowded = words.length > TURNED;
  const height = crowded ? 124 : 84;
  const line = height - 40;
  return (
    <svg
      role="img"
      aria-label={ladder.taps
        .map((tap, n) => `${words[n] ?? tap.way} reads ${tap.reading}, ${tap.low} to ${tap.high}`)
        .join("; ")}
      viewBox={`0 0 ${LONG + 90} ${height}`}
      width={LONG + 90}
      className="h-auto max-w-full"
      fontSize={11}
    >
      {ladder.taps.map((tap, n) => (
        <g key={tap.way}>
          <rect
            x={at(tap.low)}
            y={line - 6}
            width={Math.max(1, at(tap.high) - at(tap.low))}
            height={12}
            fill={n % 2 ? "var(--wash)" : "var(--card)"}
            stroke="var(--rule)"
          />
          <rect
            x={at(tap.reading) - LONG * tap.off}
            y={line - 3}
            width={2 * LONG * tap.off}
            height={6}
            fill="var(--petrol)"
            opacity={0.35}
          />
          <line
            x1={at(tap.reading)}
            x2={at(tap.reading)}
            y1={line - 10}
            y2={line + 6}
            stroke="var(--ink)"
            strokeWidth={1.6}
          />
          <text
            transform={`translate(${at(tap.reading)} ${line - 15}) rotate(${crowded ? -50 : 0})`}
            textAnchor={
              crowded ? "start" : n === 0 ? "start" : n === ladder.taps.length - 1 ? "end" : "middle"
            }
            fill="var(--ink)"
          >
            {words[n] ?? tap.way}
          </text>
          <text
            x={at(tap.reading)}
            y={line + 20}
            textAnchor={n === 0 ? "start" : n === ladder.taps.length - 1 ? "end" : "middle"}
            fontFamily="var(--font-mono)"
            fontSize={9.5}
            fill="var(--ink)"
          >
            {tap.reading}
          </text>
        </g>
      ))}
      <text x={LEFT} y={height - 4} fontSize={10} fill="var(--faint)">
        what the converter reads; the boxes are what counts as each position, the bars how far resistors move
        it
      </text>
    </svg>
  );
}
