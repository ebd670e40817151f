/** The lines from their parts to the board: those that are lit thick and over the others, each in a casing. */
import type { BoardView, ModuleBehind, Row } from "../../api/types";
import { type Layout, type Lit, wirePath } from "./layout";

const COLOURS = Array.from({ length: 8 }, (_, n) => `var(--wire-${n + 1})`);

interface Props {
  module: ModuleBehind;
  board: BoardView | undefined;
  layout: Layout;
  /** Lines of this module. */
  rows: readonly Row[];
  lit: Lit;
  scale: number;
}

export function Wires({ module, board, layout, rows, lit, scale }: Props) {
  const ends = new Map(module.ends.map((end) => [end.line, end]));
  const drawn = rows.flatMap((row, n) => {
    const end = ends.get(row.line);
    const to = row.controller === board?.id ? layout.pins.get(row.pin) : undefined;
    if (!to || !end) return [];
    const from = { x: end.x + layout.module.x, y: end.y + layout.module.y };
    const isLit = lit.has(row.line);
    return [
      { line: row.line, isLit, d: wirePath(from, to, layout, isLit), colour: COLOURS[n % COLOURS.length] },
    ];
  });
  const last = [...drawn].sort((a, b) => Number(a.isLit) - Number(b.isLit));
  return (
    <g fill="none" strokeLinejoin="round" pointerEvents="none">
      {last.map(({ line, isLit, d, colour }) => (
        <g key={line} opacity={isLit ? 1 : lit.size > 0 ? 0.18 : 0.8}>
          <path d={d} stroke="var(--desk)" strokeWidth={(isLit ? 6 : 3.4) / scale} />
          <path d={d} stroke={colour} strokeWidth={(isLit ? 3.4 : 1.5) / scale} />
        </g>
      ))}
    </g>
  );
}
