/** The plugs of a module between it and its board: a shell with its contacts; those that are lit are filled. */
import type { Row } from "../../api/types";
import { useTrade } from "../../app/trade";
import { Words } from "./BoardDrawing";
import { inkOf } from "./inks";
import type { Layout, Lit } from "./layout";

interface Props {
  layout: Layout;
  rows: readonly Row[];
  lit: Lit;
  onOver: (lines: readonly string[]) => void;
  onPick: (line: string) => void;
}

export function PlugsBetween({ layout, rows, lit, onOver, onPick }: Props) {
  const inks = useTrade()?.wire_inks;
  const on = new Map<string, Row>(
    rows.flatMap((row) =>
      row.wire?.contact ? [[`${row.wire.plug} ${row.wire.contact}`, row] as const] : [],
    ),
  );
  const u = layout.unit;
  return (
    <g>
      {layout.plugs.map((plug) => (
        <g key={plug.id}>
          <rect
            x={plug.x}
            y={plug.y}
            width={plug.width}
            height={plug.height}
            rx={plug.width / 3}
            fill="var(--card)"
            fillOpacity={0.85}
            stroke="var(--note)"
            strokeWidth={u}
          />
          <Words x={plug.x + plug.width / 2} y={plug.y - 7 * u} size={8 * u} anchor="middle" weight={600}>
            {plug.title}
          </Words>
        </g>
      ))}
      {[...layout.contacts].map(([key, at]) => {
        const row = on.get(key);
        const isLit = row !== undefined && lit.has(row.line);
        return (
          <circle
            key={key}
            cx={at.x}
            cy={at.y}
            r={2.4 * u}
            fill={row && isLit ? inkOf(inks, row.wire?.colour ?? "") : "var(--sheet)"}
            stroke={isLit ? "var(--chosen)" : "var(--note)"}
            strokeWidth={(isLit ? 1.2 : 0.6) * u}
            className={row ? "cursor-pointer" : undefined}
            onMouseEnter={() => row && onOver([row.line])}
            onMouseLeave={() => onOver([])}
            onClick={() => row && onPick(row.line)}
          >
            <title>
              {row ? `${key.split(" ")[1]}: ${row.function}, ${row.terminal}` : `${key.split(" ")[1]}: free`}
            </title>
          </circle>
        );
      })}
    </g>
  );
}
