/** The pin list: what to solder from; a pin can be set by hand or taken back. */
import { useState } from "react";
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
    <>
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
      <PinTable wire={wire} rows={rows} />
    </>
  );
}

const FOUND = "Its wire is there already, on a panel wired before: it counts as soldered, and stays";

const HEADS: readonly (readonly [string, string])[] = [
  ["board and pin", ""],
  ["function", ""],
  ["terminal", ""],
  ["kind", "What the pin is used as"],
  ["mA", "Through the pin"],
  ["at power-up", "Until the program speaks"],
  ["common", "What its other end is joined with"],
  ["module", ""],
  ["note", ""],
  ["found so", FOUND],
];

function PinTable({ wire, rows }: { wire: WireView; rows: readonly Row[] }) {
  return (
    <table className="w-full border-collapse bg-sheet text-left text-[12px]">
      <thead className="sticky top-0 bg-card text-[11px] text-faint">
        <tr>
          {HEADS.map(([head, help]) => (
            <th
              key={head}
              className={`px-2 py-1.5 font-normal whitespace-nowrap first:pl-3 ${head === "module" ? "max-[1500px]:hidden" : ""}`}
              title={help || undefined}
            >
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <PinRow key={row.line} row={row} wire={wire} />
        ))}
      </tbody>
    </table>
  );
}

function PinRow({ row, wire }: { row: Row; wire: WireView }) {
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
      className={`border-t border-rule ${selected ? "bg-wash" : ""}`}
      onClick={() => useSession.getState().select([fn])}
    >
      <td className="px-3 py-1">
        {row.via || row.pin === "all" ? (
          <span className="num">
            {row.board}, {row.pin}
          </span>
        ) : (
          <select
            aria-label={`Pin of ${row.function}, ${row.terminal}`}
            className="num h-6 max-w-40 rounded border border-faint bg-sheet px-1"
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
      <td className="min-w-24 px-2" title={`${row.function}, ${row.module}`}>
        <span className="line-clamp-2 wrap-anywhere">{row.function}</span>
      </td>
      <td className="num max-w-28 px-2 wrap-anywhere">{row.terminal}</td>
      <td className="px-2" title={row.direction}>
        {row.kind}
      </td>
      <td className="num pl-2 text-right">{row.milliamps ? shown(row.milliamps, 0) : ""}</td>
      <td className="px-2 text-faint">{row.boot}</td>
      <td className="num max-w-24 px-2 text-faint">{row.common}</td>
      <td className="max-w-28 truncate px-2 text-faint max-[1500px]:hidden">{row.module}</td>
      <td className="min-w-32 px-2 text-faint">{row.note}</td>
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
