/** The wires: hover or pick one end and the whole line lights up; pick a signal, then a free pin, to set it by hand. */
import { useState } from "react";
import type { BoardView, Row, WireView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";

const ROW = 18;
const HEAD = 30;
const COLOURS = Array.from({ length: 8 }, (_, n) => `var(--wire-${n + 1})`);

interface Laid {
  left: Map<string, number>;
  pins: Map<string, number>;
  height: number;
  titles: { text: string; y: number; side: "left" | "right" }[];
}

/** Rows of signals by panel on the left, rows of pins by board on the right. */
function laid(wire: WireView): Laid {
  const titles: Laid["titles"] = [];
  const left = new Map<string, number>();
  let y = 0;
  for (const module of new Set(wire.rows.map((r) => r.module))) {
    titles.push({ text: module, y: y + 20, side: "left" });
    y += HEAD;
    for (const row of inFunctionOrder(wire.rows.filter((r) => r.module === module))) {
      left.set(row.line, y + ROW / 2);
      y += ROW;
    }
  }
  const pins = new Map<string, number>();
  let right = 0;
  for (const board of wire.boards) {
    titles.push({
      text: board.name.includes(board.chip)
        ? `${board.name}, ${board.header} pins`
        : `${board.name}: ${board.chip}, ${board.header} pins`,
      y: right + 20,
      side: "right",
    });
    right += HEAD;
    for (const pin of board.pins) {
      pins.set(`${board.id} ${pin.name}`, right + ROW / 2);
      right += ROW;
    }
  }
  return { left, pins, height: Math.max(y, right) + 12, titles };
}

const inFunctionOrder = (rows: readonly Row[]): Row[] =>
  [...rows].sort((a, b) => a.line.localeCompare(b.line, "en", { numeric: true }));

export function Loom({ wire }: { wire: WireView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const selection = useSession((s) => s.selection);
  const [over, setOver] = useState<string | null>(null);
  const [picked, setPicked] = useState<string | null>(null);
  const { left, pins, height, titles } = laid(wire);
  const owners = new Map(wire.rows.map((row) => [row.line, row.owner]));
  const lit = (line: string | null | undefined) =>
    line != null && (line === over || line === picked || selection.includes(owners.get(line) ?? ""));
  const some = over !== null || picked !== null || selection.length > 0;
  if (wire.rows.length === 0)
    return <p className="p-6 text-faint">No wires yet: place parts at Face, then come back.</p>;
  const give = (controller: string, pin: string) => {
    if (picked) void send([{ do: "pin", line: picked, controller, pin }]).then(() => setPicked(null));
  };
  return (
    <svg
      width="100%"
      height={height}
      viewBox={`0 0 620 ${height}`}
      preserveAspectRatio="xMidYMin meet"
      className="min-w-[600px]"
      role="group"
      aria-label="Wires between signals and pins"
    >
      {titles.map((t) => (
        <text
          key={t.side + t.text}
          x={t.side === "left" ? 16 : 400}
          y={t.y}
          fontWeight="600"
          fill="var(--ink)"
        >
          {t.text}
        </text>
      ))}
      {wire.rows.map((row, n) => {
        const y0 = left.get(row.line);
        const y1 = pins.get(`${row.controller} ${row.pin}`);
        if (y0 === undefined || y1 === undefined) return null;
        return (
          <path
            key={row.line}
            d={`M262 ${y0}C330 ${y0} 330 ${y1} 398 ${y1}`}
            fill="none"
            stroke={COLOURS[n % COLOURS.length]}
            strokeWidth={lit(row.line) ? 3 : 1.5}
            opacity={some && !lit(row.line) ? 0.2 : 0.9}
            pointerEvents="none"
          />
        );
      })}
      {wire.rows.map((row) => (
        <SignalEnd
          key={row.line}
          row={row}
          y={left.get(row.line) ?? 0}
          lit={lit(row.line)}
          picked={picked === row.line}
          onOver={setOver}
          onPick={() => setPicked(picked === row.line ? null : row.line)}
        />
      ))}
      {wire.boards.map((board) => (
        <Pins
          key={board.id}
          board={board}
          pins={pins}
          lit={lit}
          onOver={setOver}
          picking={picked !== null}
          onGive={give}
        />
      ))}
    </svg>
  );
}

interface SignalProps {
  row: Row;
  y: number;
  lit: boolean;
  picked: boolean;
  onOver: (line: string | null) => void;
  onPick: () => void;
}

const press = (act: () => void) => (event: React.KeyboardEvent) => {
  if (event.key !== "Enter" && event.key !== " ") return;
  event.preventDefault();
  act();
};

function SignalEnd({ row, y, lit, picked, onOver, onPick }: SignalProps) {
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={picked}
      aria-description={row.pin ? `${row.board} pin ${row.pin}` : "without a pin"}
      className="cursor-pointer"
      onMouseEnter={() => onOver(row.line)}
      onMouseLeave={() => onOver(null)}
      onFocus={() => onOver(row.line)}
      onBlur={() => onOver(null)}
      onClick={onPick}
      onKeyDown={press(onPick)}
    >
      <rect
        x={10}
        y={y - ROW / 2}
        width={252}
        height={ROW}
        fill={lit ? "var(--wash)" : "transparent"}
        rx={3}
      />
      <text x={16} y={y + 4} fontSize={12} fill="var(--ink)">
        {row.function.length > 28 ? `${row.function.slice(0, 27)}…` : row.function}
      </text>
      <text
        x={252}
        y={y + 4}
        fontSize={11}
        textAnchor="end"
        fontFamily="var(--font-mono)"
        fill="var(--faint)"
      >
        {row.terminal}
      </text>
      <circle cx={262} cy={y} r={3} fill={row.pin ? "var(--ink)" : "var(--desk)"} stroke="var(--ink)" />
    </g>
  );
}

interface PinsProps {
  board: BoardView;
  pins: Map<string, number>;
  lit: (line: string | null | undefined) => boolean;
  onOver: (line: string | null) => void;
  picking: boolean;
  onGive: (controller: string, pin: string) => void;
}

function Pins({ board, pins, lit, onOver, picking, onGive }: PinsProps) {
  return board.pins.map((pin) => {
    const y = pins.get(`${board.id} ${pin.name}`) ?? 0;
    const give = () => onGive(board.id, pin.name);
    return (
      <g
        key={pin.name}
        {...(picking
          ? {
              role: "button",
              tabIndex: 0,
              "aria-label": `Give pin ${pin.name} of ${board.name}`,
              onClick: give,
              onKeyDown: press(give),
            }
          : {})}
        className={picking ? "cursor-pointer" : undefined}
        onMouseEnter={() => onOver(pin.lines[0] ?? null)}
        onMouseLeave={() => onOver(null)}
      >
        <rect
          x={398}
          y={y - ROW / 2 + 1}
          width={212}
          height={ROW - 2}
          fill={pin.lines.some(lit) ? "var(--wash)" : "var(--sheet)"}
          stroke="var(--rule)"
          rx={3}
        />
        <circle
          cx={398}
          cy={y}
          r={3}
          fill={pin.lines.length > 0 ? "var(--ink)" : "var(--sheet)"}
          stroke="var(--ink)"
        />
        <text
          x={410}
          y={y + 4}
          fontSize={12}
          fontFamily="var(--font-mono)"
          fontWeight="600"
          fill="var(--ink)"
        >
          {pin.name}
        </text>
        <text x={604} y={y + 4} fontSize={11} textAnchor="end" fill="var(--faint)">
          {pin.can.join(", ")}
        </text>
      </g>
    );
  });
}
