/** The lit line in words, from its terminal to its pin; where several are lit, how many. */
import type { Row } from "../../api/types";
import { many } from "../../ui/figures";

export function LineWords({ rows, picking }: { rows: readonly Row[]; picking: boolean }) {
  const row = rows[0];
  if (!row)
    return (
      <p className="text-faint">
        Pull the end of a line to a pin, or press it and then the pin, to move it there; the wheel zooms
      </p>
    );
  if (rows.length > 1) {
    const pins = rows.map((r) => r.pin || "none");
    return (
      <p className="truncate">
        <b>{row.function}</b>, {many(rows.length, "line")}; pins{" "}
        <span className="num">{pins.join(", ")}</span>
      </p>
    );
  }
  return (
    <p className="truncate" title={row.note}>
      <b>
        {row.function}, {row.terminal}
      </b>
      , {row.module}:{" "}
      {row.pin ? (
        <>
          {row.board}, {!row.via && "pin "}
          <span className="num">{row.pin}</span>, {DIRECTION[row.direction] ?? row.direction}
        </>
      ) : (
        "no pin yet"
      )}
      {row.wire && (
        <>
          ; {row.wire.colour}
          {row.wire.stripe && `-${row.wire.stripe}`}, <span className="num">{row.wire.area} mm²</span>,{" "}
          <span className={`num ${row.wire.said ? "" : "text-judge"}`}>
            {row.wire.said ? "" : "~"}
            {row.wire.length} mm
          </span>
          {row.wire.contact && `, ${row.wire.plug_name} ${row.wire.contact}`}
          {row.wire.lies && `, terminal ${row.wire.lies}`}
          {row.wire.soldered && <b className="text-ok">, soldered</b>}
        </>
      )}
      {row.by === "hand" && <b>, set by hand</b>}
      {row.by === "found" && <b>, found so</b>}
      {row.note && <span className="text-faint">; {row.note}</span>}
      {picking && <b className="text-petrol">; press a pin to move it there, Esc to leave it</b>}
    </p>
  );
}

const DIRECTION: Record<string, string> = { in: "input", out: "output", both: "input and output" };
