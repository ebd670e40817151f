/** A list from a spreadsheet or a CSV file: read, shown with what was not understood, then added. */
import { useEffect, useState } from "react";
import { answered, api } from "../../api/client";
import type { Listing } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { many } from "../../ui/figures";
import { Sheet } from "../../ui/Sheet";

interface Props {
  text: string;
  onClose: () => void;
}

export function PasteSheet({ text: first, onClose }: Props) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [text, setText] = useState(first);
  const { listing, wrong } = useListing(view.id, text);
  const todo = listing ? todoWords(listing) : "";
  const add = async () => {
    if (listing && (await send([...listing.rows, ...listing.edits]))) onClose();
  };
  return (
    <Sheet title="A list of functions" open onClose={onClose} wide>
      <p className="text-faint">
        One function a line, or cells from a spreadsheet. A heading may name the columns: name, group, want,
        event, volts, amps, current, bus, positions, indicator, risk, state, duty, of, hand, moment, id. A
        list that was exported here changes what is different in it.
      </p>
      <label className="mt-3 block">
        <span className="sr-only">The list</span>
        <textarea
          className="num h-32 w-full resize-y rounded border border-rule bg-sheet p-2 whitespace-pre"
          value={text}
          autoFocus
          spellCheck={false}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {wrong && (
        <p role="alert" className="mt-1 text-must">
          {wrong}
        </p>
      )}
      {listing && <Faults listing={listing} />}
      {listing && listing.same > 0 && (
        <p className="mt-2 text-[12px] text-faint">{many(listing.same, "line")} as the list has it already</p>
      )}
      {listing && <Understood listing={listing} />}
      <div className="mt-4 flex flex-wrap gap-2">
        <Button look="solid" disabled={!todo} onClick={() => void add()}>
          {todo || "Add them"}
        </Button>
        <FileButton
          label="List to import"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onFile={(chosen) => void chosen.text().then(setText)}
        >
          Read a CSV file…
        </FileButton>
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </Sheet>
  );
}

/** What the button does: “Add 3 functions, change 2”. */
function todoWords({ rows, edits }: Listing): string {
  const add = rows.length ? `Add ${many(rows.length, "function")}` : "";
  const change = edits.length ? `${add ? "change" : "Change"} ${edits.length}` : "";
  return [add, change].filter(Boolean).join(", ");
}

/** The text as the core reads it, a moment after the last key. */
function useListing(design: string, text: string): { listing: Listing | null; wrong: string | null } {
  const [listing, setListing] = useState<Listing | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  useEffect(() => {
    let over = false;
    const timer = setTimeout(() => {
      if (!text.trim()) {
        setListing(null);
        setWrong(null);
        return;
      }
      const path = { design_id: design };
      answered(api.POST("/api/designs/{design_id}/brief/read-list", { params: { path }, body: { text } }))
        .then((found) => {
          if (over) return;
          setListing(found);
          setWrong(null);
        })
        .catch((error: unknown) => {
          if (over) return;
          setListing(null);
          setWrong(error instanceof Error ? error.message : "That cannot be read");
        });
    }, 150);
    return () => {
      over = true;
      clearTimeout(timer);
    };
  }, [design, text]);
  return { listing, wrong };
}

function Faults({ listing }: { listing: Listing }) {
  if (listing.faults.length === 0) return null;
  return (
    <section aria-label="Lines not understood" className="mt-3 border-l-[3px] border-judge pl-3">
      <h3 className="text-[12px] text-judge">{many(listing.faults.length, "line")} not understood</h3>
      <ul className="mt-1 text-[12px]/[17px]">
        {listing.faults.slice(0, 40).map((f) => (
          <li key={f.line}>
            <span className="num text-faint">line {f.line}</span> {f.text || "(empty)"}:{" "}
            <b className="font-semibold">{f.reason}</b>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Understood({ listing }: { listing: Listing }) {
  if (listing.rows.length === 0) return null;
  return (
    <div
      className="mt-3 max-h-52 overflow-auto border-y border-rule"
      tabIndex={0}
      role="group"
      aria-label="Understood"
    >
      <table className="w-full border-collapse text-left text-[12px]">
        <thead>
          <tr className="text-[11px] text-faint">
            {["name", "group", "wanted", "switches", "positions"].map((head) => (
              <th key={head} className="py-1 pr-3 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {listing.rows.map((row) => (
            <tr key={row.name} className="border-t border-rule">
              <td className="py-1 pr-3">{row.name}</td>
              <td className="py-1 pr-3">{row.group}</td>
              <td className="py-1 pr-3">{row.want}</td>
              <td className="num py-1 pr-3">
                {[
                  row.switches.event,
                  row.switches.volts && `${row.switches.volts} V`,
                  row.switches.amps && `${row.switches.amps} A`,
                ]
                  .filter(Boolean)
                  .join(" ")}
              </td>
              <td className="py-1">{row.positions.join(" / ")}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
