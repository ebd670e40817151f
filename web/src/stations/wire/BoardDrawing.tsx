/** A board with its pins in two columns, each named by what hangs on it. */
import { memo } from "react";
import type { BoardView, Row } from "../../api/types";
import type { Layout, Lit } from "./layout";
import { press } from "./press";
import type { Grab } from "./usePull";

interface Props {
  board: BoardView;
  layout: Layout;
  rows: readonly Row[];
  /** Lines of the module that is shown. */
  here: ReadonlySet<string>;
  lit: Lit;
  /** The line that is being given a pin. */
  picking: Row | undefined;
  onOver: (lines: readonly string[]) => void;
  onPick: (line: string) => void;
  onGive: (pin: string) => void;
  /** The pin over which a line is held that is being pulled there. */
  target: string | null | undefined;
  onGrab: Grab;
}

type Pin = BoardView["pins"][number];

export function BoardDrawing(props: Props) {
  const { board, layout, rows, here, lit, picking, target, onOver, onPick, onGive, onGrab } = props;
  const { x, y, width, height } = layout.board;
  const u = layout.unit;
  const free = board.pins.filter((pin) => pin.lines.length === 0).length;
  const byLine = new Map(rows.map((row) => [row.line, row]));
  return (
    <g>
      <rect x={x} y={y} width={width} height={height} rx={4 * u} fill="var(--board)" />
      <Words x={x + width / 2} y={y + height + 8 * u} size={9 * u} anchor="middle" weight={600}>
        {`${board.name}, ${board.pins.length - free} of ${board.pins.length}, ${free} free, ${board.volts} V`}
      </Words>
      {layout.pads.map((pad, n) => (
        <g key={`${pad.name} ${n}`}>
          <rect
            x={pad.x - 4 * u}
            y={pad.y - 4 * u}
            width={8 * u}
            height={8 * u}
            rx={4 * u}
            fill="none"
            stroke="var(--board-pin)"
            strokeWidth={u}
          />
          <Words
            x={pad.left ? pad.x + 6 * u : pad.x - 6 * u}
            y={pad.y}
            size={6.6 * u}
            anchor={pad.left ? "start" : "end"}
            colour="var(--board-ink)"
            mono
          >
            {pad.name}
          </Words>
        </g>
      ))}
      {board.pins.map((pin) => {
        const at = layout.pins.get(pin.name);
        const row = byLine.get(pin.lines[0] ?? "");
        return (
          at && (
            <PinDrawing
              key={pin.name}
              name={board.name}
              pin={pin}
              x={at.x}
              y={at.y}
              left={at.left}
              u={u}
              row={row}
              mine={row !== undefined && here.has(row.line)}
              isLit={target === pin.name || pin.lines.some((line) => lit.has(line))}
              picking={picking}
              onOver={onOver}
              onPick={onPick}
              onGive={picking ? onGive : undefined}
              onGrab={onGrab}
            />
          )
        );
      })}
    </g>
  );
}

interface PinProps extends Pick<Props, "picking" | "onOver" | "onPick" | "onGrab"> {
  /** Of its board. */
  name: string;
  pin: Pin;
  x: number;
  y: number;
  left: boolean;
  u: number;
  row: Row | undefined;
  /** Whether its line is one of the module that is shown. */
  mine: boolean;
  isLit: boolean;
  /** None while no line is being given a pin, so that a pin is not drawn anew for nothing. */
  onGive: ((pin: string) => void) | undefined;
}

const PinDrawing = memo(function PinDrawing(props: PinProps) {
  const { name, pin, x, y, left, u, row, mine, isLit, picking, onOver, onPick, onGive, onGrab } = props;
  const at = { x, y, left };
  const line = pin.lines[0];
  const giving = picking !== undefined;
  const free = line === undefined || (picking?.bus != null && pin.bus === picking.bus);
  const words = row ? nameOf(pin, row) : shortened(pin.can.join(", "));
  const act = giving ? () => onGive?.(pin.name) : line !== undefined ? () => onPick(line) : undefined;
  const label = giving
    ? `Give pin ${pin.name} of ${name}`
    : `Pin ${pin.name} of ${name}: ${row ? nameOf(pin, row, false) : "free"}`;
  const taken = giving && !free && row ? `It is taken from ${nameOf(pin, row, false)}` : undefined;
  const outside = at.left ? at.x - 12 * u : at.x + 12 * u;
  // The words stand beside the button, whose name says them in full.
  return (
    <g>
      <g
        {...(act
          ? {
              role: "button",
              tabIndex: 0,
              "aria-label": label,
              "aria-description": taken,
              onClick: act,
              onKeyDown: press(act),
            }
          : {})}
        data-pin={pin.name}
        className={act ? "cursor-pointer" : undefined}
        onPointerDown={(event) => line !== undefined && row?.pin !== "all" && onGrab(line, event)}
        onMouseEnter={() => onOver(pin.lines)}
        onMouseLeave={() => onOver([])}
      >
        <rect
          x={at.left ? outside - 106 * u : at.x - 6 * u}
          y={at.y - 5.8 * u}
          width={112 * u}
          height={11.6 * u}
          rx={2 * u}
          fill={isLit ? "var(--wash)" : "transparent"}
        />
        <rect
          x={at.x - 4 * u}
          y={at.y - 4 * u}
          width={8 * u}
          height={8 * u}
          rx={u}
          fill={line === undefined ? "var(--board-free)" : "var(--board-pin)"}
          stroke={giving && free ? "var(--board-ink)" : "none"}
          strokeWidth={1.4 * u}
        />
        {(row?.by === "hand" || row?.by === "found") && (
          <rect
            x={at.x - 5.6 * u}
            y={at.y - 5.6 * u}
            width={11.2 * u}
            height={11.2 * u}
            rx={1.6 * u}
            fill="none"
            stroke="var(--board-ink)"
            strokeWidth={0.8 * u}
          >
            <title>
              {row.by === "hand" ? "Set by hand: it stays" : "Found so on a panel wired before: it stays"}
            </title>
          </rect>
        )}
        {row?.wire?.soldered && (
          <circle cx={at.x} cy={at.y} r={2.6 * u} fill="var(--board)">
            <title>Soldered: it stays</title>
          </circle>
        )}
      </g>
      <Words
        x={at.left ? at.x + 6 * u : at.x - 6 * u}
        y={at.y}
        size={7.4 * u}
        anchor={at.left ? "start" : "end"}
        colour="var(--board-ink)"
        mono
      >
        {pin.name}
      </Words>
      <Words
        x={outside}
        y={at.y}
        size={8.6 * u}
        anchor={at.left ? "end" : "start"}
        colour={mine ? "var(--ink)" : "var(--faint)"}
        {...(isLit ? { weight: 700 } : {})}
      >
        {words}
      </Words>
    </g>
  );
});

const LONGEST = 25;

const shortened = (words: string) => (words.length > LONGEST ? `${words.slice(0, LONGEST - 1)}…` : words);

/** What hangs on a pin; shortened where it would meet something else. */
function nameOf(pin: Pin, row: Row, short = true): string {
  const more = pin.lines.length > 1 ? ` and ${pin.lines.length - 1} more` : "";
  const whole = `${row.function}, ${row.terminal}${more}`;
  if (!short || whole.length <= LONGEST) return whole;
  const end = `, ${row.terminal}${more}`;
  const room = LONGEST - end.length - 1;
  return room > 3 ? `${row.function.slice(0, room)}…${end}` : `${whole.slice(0, LONGEST - 1)}…`;
}

interface WordsProps {
  x: number;
  y: number;
  size: number;
  anchor: "start" | "middle" | "end";
  weight?: number;
  colour?: string;
  mono?: boolean;
  children: string;
}

/** Words that grow with the drawing. */
export function Words({
  x,
  y,
  size,
  anchor,
  weight = 400,
  colour = "var(--ink)",
  mono,
  children,
}: WordsProps) {
  return (
    <text
      transform={`translate(${x} ${y}) scale(1 -1)`}
      fontSize={size}
      textAnchor={anchor}
      dominantBaseline="central"
      fontWeight={weight}
      fontFamily={mono ? "var(--font-mono)" : undefined}
      fill={colour}
      pointerEvents="none"
    >
      {children}
    </text>
  );
}
