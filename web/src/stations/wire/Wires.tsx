/**
 * The lines from their parts through their plug to the board, each in the colour of its wire; those that are lit are thick
 * and over the others. What is pointed at changes two lines only: the others are dimmed by what they stand in.
 */
import { memo } from "react";
import type { BoardView, ModuleBehind, Row } from "../../api/types";
import { useTrade } from "../../app/trade";
import { inkOf } from "./inks";
import { type Layout, type Lit, wirePath } from "./layout";

const COLOURS = Array.from({ length: 8 }, (_, n) => `var(--wire-${n + 1})`);
/** Colours that would be lost on the desk by day. */
const PALE = new Set(["white", "yellow", "pink"]);

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
  const inks = useTrade()?.wire_inks;
  const ends = new Map(module.ends.map((end) => [end.line, end]));
  const drawn = rows.flatMap((row, n) => {
    const end = ends.get(row.line);
    const to = row.controller === board?.id ? layout.pins.get(row.pin) : undefined;
    if (!to || !end) return [];
    const from = { x: end.x + layout.module.x, y: end.y + layout.module.y };
    const isLit = lit.has(row.line);
    const through = row.wire?.contact
      ? layout.contacts.get(`${row.wire.plug} ${row.wire.contact}`)
      : undefined;
    const colour = row.wire ? inkOf(inks, row.wire.colour) : (COLOURS[n % COLOURS.length] ?? "");
    const d = wirePath(from, to, layout, isLit, through);
    return [{ line: row.line, isLit, d, colour, pale: PALE.has(row.wire?.colour ?? "") }];
  });
  const last = [...drawn].sort((a, b) => Number(a.isLit) - Number(b.isLit));
  return (
    <g
      fill="none"
      strokeLinejoin="round"
      pointerEvents="none"
      className={lit.size > 0 ? "[&>g:not([data-lit])]:opacity-[0.16]" : "[&>g]:opacity-80"}
    >
      {last.map(({ line, ...wire }) => (
        <OneWire key={line} {...wire} scale={scale} />
      ))}
    </g>
  );
}

interface WireProps {
  d: string;
  colour: string;
  isLit: boolean;
  pale: boolean;
  scale: number;
}

const OneWire = memo(function OneWire({ d, colour, isLit, pale, scale }: WireProps) {
  const wide = isLit ? 3.4 : 1.5;
  return (
    <g data-lit={isLit || undefined}>
      <path d={d} stroke="var(--desk)" strokeWidth={(isLit ? 6 : 3.4) / scale} />
      {pale && <path d={d} stroke="var(--note)" strokeWidth={(wide + 1.2) / scale} />}
      <path d={d} stroke={colour} strokeWidth={wide / scale} />
    </g>
  );
});
