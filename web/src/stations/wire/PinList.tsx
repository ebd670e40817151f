/** The pin list: what to solder from; a pin can be set by hand or taken back. */
import { useVirtualizer } from "@tanstack/react-virtual";
import { useRef, useState } from "react";
import type { Row, WireView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";

export function PinList({ wire }: { wire: WireView }) {
  const [sought, setSought] = useState("");
  const wanted = sought.trim().toLowerCase();
  const has = (row: Row) =>
    [row.board, row.pin, row.function, row.terminal, row.kind, row.boot, row.common, row.module, row.note]
      .join(" ")
      .toLowerCase()
      .includes(wanted);
  const rows = wanted ? wire.rows.filter(has) : wire.rows;
  return (
    <div className="flex h-full flex-col">
      <p className="flex items-center gap-3 border-b border-rule bg-card px-3 py-1.5 text-[12px]">
        <input
          type="search"
          aria-label="Find a line by its function, terminal, pin or board"
          placeholder="Find a line, a pin"
          className="h-7 w-52 rounded border border-faint bg-sheet px-2"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
        {wanted && <span className="text-faint">{many(rows.length, "line")}</span>}
      </p>
      {rows.length > 0 ? (
        <PinTable wire={wire} rows={rows} />
      ) : (
        <p className="p-4 text-faint">
          {wanted
            ? `No line has “${sought.trim()}” on it.`
            : "No lines yet: place parts at Face, and add a controller here for them."}
        </p>
      )}
    </div>
  );
}

const FOUND = "Its wire is there already, on a panel wired before: it counts as soldered, and stays";

/** Height of a row with a line of words (px), until it is measured. */
const ROW = 33;
/** What heads a column, what that means, how wide it is. */
const HEADS: readonly (readonly [string, string, string])[] = [
  ["board and pin", "", "w-44"],
  ["function", "", ""],
  ["terminal", "", "w-20"],
  ["kind", "What the pin is used as", "w-20"],
  ["mA", "Through the pin", "w-10 text-right"],
  ["at power-up", "Until the program speaks", "w-20"],
  ["common", "What its other end is joined with", "w-18"],
  ["module", "", "w-28 max-[1500px]:hidden"],
  ["note", "", "w-40 min-[1500px]:w-64"],
  ["found so", FOUND, "w-22"],
];

/** Only the rows in sight are drawn. */
function PinTable({ wire, rows }: { wire: WireView; rows: readonly Row[] }) {
  const frame = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- what it returns is used here only, and at once
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => frame.current,
    estimateSize: () => ROW,
    getItemKey: (n) => rows[n]?.line ?? n,
    overscan: 10,
  });
  const seen = virtual.getVirtualItems();
  const above = seen[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (seen.at(-1)?.end ?? 0);
  return (
    <div ref={frame} className="min-h-0 flex-1 overflow-auto">
      <table
        aria-rowcount={rows.length + 1}
        className="w-full min-w-[860px] table-fixed border-collapse bg-sheet text-left text-[12px]"
      >
        <thead className="sticky top-0 z-1 bg-card text-[11px] text-faint">
          <tr aria-rowindex={1}>
            {HEADS.map(([head, help, width]) => (
              <th
                key={head}
                className={`px-2 py-1.5 font-normal whitespace-nowrap first:pl-3 ${width}`}
                title={help || undefined}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {above > 0 && <tr aria-hidden="true" style={{ height: above }} />}
          {seen.map(({ index }) => {
            const row = rows[index];
            return (
              row && (
                <PinRow
                  key={row.line}
                  row={row}
                  wire={wire}
                  index={index}
                  measured={virtual.measureElement}
                />
              )
            );
          })}
          {below > 0 && <tr aria-hidden="true" style={{ height: below }} />}
        </tbody>
      </table>
    </div>
  );
}

interface RowProps {
  row: Row;
  wire: WireView;
  index: number;
  measured: (element: HTMLTableRowElement | null) => void;
}

function PinRow({ row, wire, index, measured }: RowProps) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const fn = row.owner;
  const selected = useSession((s) => s.selection.includes(fn));
  const [opened, setOpened] = useState(false); // hundreds of rows with every pin in each are too much to draw
  const choose = (value: string) => {
    const [controller = "", pin = ""] = value.split(" ");
    void send(
      value
        ? [{ do: "pin", line: row.line, controller, pin, found: false }]
        : [{ do: "unpin", lines: [row.line] }],
    );
  };
  return (
    <tr
      ref={measured}
      data-index={index}
      aria-rowindex={index + 2}
      className={`border-t border-rule ${selected ? "bg-wash" : ""}`}
      onClick={() => useSession.getState().select([fn])}
    >
      <td className="px-3 py-1">
        {row.via || row.pin === "all" ? (
          <span className="num wrap-anywhere whitespace-normal">
            {row.board}, {row.pin}
          </span>
        ) : (
          <select
            aria-label={`Pin of ${row.function}, ${row.terminal}`}
            className="num h-6 w-full rounded border border-faint bg-sheet px-1"
            value={row.pin ? `${row.controller} ${row.pin}` : ""}
            onChange={(event) => choose(event.target.value)}
            onFocus={() => setOpened(true)}
            onPointerDown={() => setOpened(true)}
          >
            <option value="">no pin</option>
            {!opened && row.pin && (
              <option value={`${row.controller} ${row.pin}`}>
                {row.board} {row.pin}
              </option>
            )}
            {(opened ? wire.boards : []).map((board) => (
              <optgroup key={board.id} label={board.name}>
                {board.pins
                  .filter(
                    (p) =>
                      p.lines.length === 0 || p.lines.includes(row.line) || (row.bus && p.bus === row.bus),
                  )
                  .map((p) => (
                    <option key={p.name} value={`${board.id} ${p.name}`}>
                      {board.name} {p.name}
                    </option>
                  ))}
              </optgroup>
            ))}
          </select>
        )}
      </td>
      <td className="px-2" title={`${row.function}, ${row.module}`}>
        <span className="line-clamp-2 wrap-anywhere">{row.function}</span>
      </td>
      <td className="num px-2 wrap-anywhere whitespace-normal">{row.terminal}</td>
      <td className="px-2" title={row.direction}>
        {row.kind}
      </td>
      <td className="num pl-2 text-right">{row.milliamps ? shown(row.milliamps, 0) : ""}</td>
      <td className="px-2 text-faint">{row.boot}</td>
      <td className="num px-2 wrap-anywhere whitespace-normal text-faint">{row.common}</td>
      <td className="truncate px-2 text-faint max-[1500px]:hidden">{row.module}</td>
      <td className="px-2 wrap-anywhere text-faint">{row.note}</td>
      <td className="px-2">
        {row.pin && row.pin !== "all" && !row.via && (
          <label className="mr-2 inline-flex items-center gap-1 whitespace-nowrap text-faint" title={FOUND}>
            <input
              type="checkbox"
              aria-label={`${row.function}, ${row.terminal} was found on that pin`}
              checked={row.by === "found"}
              onChange={(event) =>
                void send([
                  {
                    do: "pin",
                    line: row.line,
                    controller: row.controller,
                    pin: row.pin,
                    found: event.target.checked,
                  },
                ])
              }
            />
          </label>
        )}
        {(row.by === "hand" || row.by === "found") && (
          <Button look="quiet" onClick={() => void send([{ do: "unpin", lines: [row.line] }])}>
            Clear
          </Button>
        )}
      </td>
    </tr>
  );
}
