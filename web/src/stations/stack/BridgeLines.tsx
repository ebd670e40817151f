/** The least bridges of a layer as lines with their lengths, and the pieces that would break off at the thin ones. */
import type { StackLayer } from "../../api/types";
import { Cased } from "../../canvas/Cased";
import { Tag } from "../../canvas/Tag";
import { shown } from "../../ui/figures";

/** So many of those that are enough carry their length too. */
const NAMED = 4;

interface Props {
  layer: StackLayer;
  scale: number;
  selection: readonly string[];
}

export function BridgeLines({ layer, scale, selection }: Props) {
  const s = 1 / scale;
  return (
    <g pointerEvents="none">
      {layer.pieces.map((piece, n) => (
        <path
          key={n}
          d={piece.path}
          fill="var(--on-must)"
          fillOpacity={0.18}
          stroke="var(--on-must)"
          strokeWidth={1.5 * s}
          strokeDasharray={`${5 * s} ${3 * s}`}
        />
      ))}
      {layer.bridges.map((b, n) => {
        const d = `M${b.x0} ${b.y0}L${b.x1} ${b.y1}`;
        const mine = b.functions.some((f) => selection.includes(f));
        const colour = b.thin ? "var(--on-must)" : "var(--on-ok)";
        return (
          <g key={n} data-bridge={b.between}>
            <title>{b.between}</title>
            <Cased d={d} scale={scale} colour={colour} width={mine ? 3 : 1.8} />
            {(b.thin || mine || n < NAMED) && (
              <Tag
                x={(b.x0 + b.x1) / 2}
                y={(b.y0 + b.y1) / 2 + 14 * s}
                scale={scale}
                text={shown(b.gap)}
                ink={b.thin ? "var(--casing)" : colour}
                ground={b.thin ? colour : "var(--casing)"}
                edge={colour}
              />
            )}
          </g>
        );
      })}
    </g>
  );
}
