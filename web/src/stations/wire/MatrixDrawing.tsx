/** A matrix as it is wired: rows that are pulled down in turn, columns that are read, a contact where they meet. */
import type { NetworksView } from "../../api/types";
import { useSession } from "../../app/session";

type Network = NetworksView["networks"][number];

const WIDE = 132;
const HIGH = 44;
const LEFT = 44;
const TOP = 18;
const LONGEST = 21;

export function MatrixDrawing({ network }: { network: Network }) {
  const selection = useSession((s) => s.selection);
  const columns = Math.max(...network.rows.map((row) => row.length));
  const width = LEFT + columns * WIDE;
  const height = TOP + network.rows.length * HIGH + 6;
  const all = network.rows.flat().map((spot) => spot.function);
  const several = new Set(all.filter((fn, n) => all.indexOf(fn) !== n));
  const diodes = network.kind === "matrix";
  const short = (words: string) => (words.length > LONGEST ? `${words.slice(0, LONGEST - 1)}…` : words);
  return (
    <svg
      role="img"
      aria-label={`${network.name}: ${network.rows
        .map((row, n) => `row ${n + 1} ${row.map((spot) => `${spot.name} ${spot.terminal}`).join(", ")}`)
        .join("; ")}`}
      viewBox={`0 0 ${width} ${height}`}
      width={width}
      className="h-auto max-w-full"
      fontSize={10}
    >
      {Array.from({ length: columns }, (_, k) => (
        <g key={k}>
          <line x1={x(k)} x2={x(k)} y1={TOP - 4} y2={height - 4} stroke="var(--wire-5)" strokeWidth={1.4} />
          <text x={x(k)} y={8} textAnchor="middle" fill="var(--faint)">
            column {k + 1}
          </text>
        </g>
      ))}
      {network.rows.map((row, n) => (
        <g key={n}>
          <line x1={LEFT - 4} x2={width} y1={y(n)} y2={y(n)} stroke="var(--wire-1)" strokeWidth={1.4} />
          <text x={0} y={y(n) + 3} fill="var(--faint)">
            row {n + 1}
          </text>
          {row.map((spot, k) => {
            const chosen = selection.includes(spot.function);
            return (
              <g
                key={`${spot.function} ${spot.terminal}`}
                className="cursor-pointer"
                onClick={() => useSession.getState().select([spot.function])}
              >
                <rect x={x(k)} y={y(n) - 34} width={WIDE - 8} height={36} fill="transparent" />
                <path
                  d={`M${x(k)} ${y(n) - 26}H${x(k) + 26}M${x(k) + 26} ${y(n) - 26}l8 -5M${x(k) + 36} ${y(n) - 26}H${x(k) + WIDE - 12}V${y(n)}`}
                  stroke="var(--ink)"
                  strokeWidth={chosen ? 2.2 : 1.1}
                  fill="none"
                />
                {diodes && (
                  <path
                    d={`M${x(k) + 8} ${y(n) - 30}v8l7 -4zM${x(k) + 15} ${y(n) - 30}v8`}
                    stroke="var(--ink)"
                    fill="var(--ink)"
                    strokeWidth={1}
                  />
                )}
                <circle cx={x(k) + WIDE - 12} cy={y(n)} r={2} fill="var(--ink)" />
                <circle cx={x(k)} cy={y(n) - 26} r={2} fill="var(--ink)" />
                <text x={x(k) + 5} y={y(n) - 9} fill="var(--ink)" fontWeight={chosen ? 700 : 400}>
                  {short(several.has(spot.function) ? `${spot.name}, ${spot.terminal}` : spot.name)}
                  <title>{`${spot.name}, ${spot.terminal}`}</title>
                </text>
              </g>
            );
          })}
        </g>
      ))}
    </svg>
  );
}

const x = (column: number) => LEFT + column * WIDE + 4;
const y = (row: number) => TOP + (row + 1) * HIGH - 4;
