/** Every piece: its size and sheet, the machine that makes it, how many are made. */
import type { SheetsView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { FigureField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { Parting } from "./Parting";
import { useCut } from "./store";

type Piece = SheetsView["pieces"][number];

export function Pieces({ sheets }: { sheets: SheetsView }) {
  const large = new Set(sheets.wholes.map((whole) => whole.id)); // they stand above, with their seams
  const rows = sheets.pieces.filter((piece) => !large.has(piece.id));
  return (
    <div>
      <p className="px-3.5 py-2 text-[12px] text-faint">
        A piece goes to the first machine that cuts its material and takes it whole, unless you say another.
      </p>
      <ul>
        {sheets.wholes.map((whole) => (
          <Parting key={whole.id} whole={whole} />
        ))}
        {rows.map((piece) => (
          <Row key={piece.id} piece={piece} sheets={sheets} />
        ))}
      </ul>
      {sheets.others.length > 0 && (
        <section aria-label="Printed, and in film" className="border-t border-rule px-3.5 py-2.5">
          <h3 className="font-semibold">Printed, and in film</h3>
          <ul className="mt-1 space-y-1.5 text-[12px]">
            {sheets.others.map((other) => (
              <li key={other.file}>
                {other.many > 1 && <span className="num">{other.many} × </span>}
                {other.name}
                <span className={`block text-[11px] ${other.fine ? "text-faint" : "text-judge"}`}>
                  {other.how}; <span className="num">{other.file}</span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}

function Row({ piece, sheets }: { piece: Piece; sheets: SheetsView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const set = useCut((s) => s.set);
  const on = sheets.sheets.find((s) => s.laid.some((l) => l.piece === piece.id));
  const why = sheets.unlaid.find((u) => u.piece === piece.id)?.why;
  const automatic = sheets.sheets.find((s) => s.id === on?.id)?.machine_name;
  return (
    <li className="border-t border-rule px-3.5 py-2">
      <p className="flex justify-between gap-2">
        <span className="min-w-0 font-semibold">{piece.name}</span>
        <span className="num shrink-0 text-[11px] text-faint">
          {shown(piece.width)} × {shown(piece.height)}
        </span>
      </p>
      <p className="text-[11px] text-faint">
        {piece.material_name} {shown(piece.thickness)}
        {on && (
          <>
            {", on "}
            <button
              type="button"
              className="text-petrol underline hover:no-underline"
              onClick={() => set({ sheet: on.id, side: "jobs", view: "bed" })}
            >
              {on.title}
            </button>
          </>
        )}
        {piece.cut && piece.again.length === 0 && <span className="text-ok">, cut</span>}
        {piece.again.length > 0 && <span className="text-judge">, to be cut again</span>}
        {why && <span className="text-judge">, {why}</span>}
      </p>
      <div className="mt-1.5 grid grid-cols-[1fr_74px] items-end gap-2">
        <label className="block text-[11px] text-faint">
          Machine
          <select
            className="mt-0.5 h-8 w-full rounded border border-faint bg-sheet px-1.5 text-[13px] text-ink"
            value={piece.chosen ? (piece.machine ?? "") : ""}
            aria-label={`Machine for ${piece.name}`}
            onChange={(event) =>
              void send([{ do: "set_job", piece: piece.id, machine: event.target.value || null }])
            }
          >
            <option value="">Automatic{!piece.chosen && automatic ? `: ${automatic}` : ""}</option>
            {piece.machines.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </select>
        </label>
        <FigureField
          label="Made"
          whole
          value={piece.many}
          least={1}
          most={50}
          onCommit={(many) => void send([{ do: "set_copies", piece: piece.id, many }])}
        />
      </div>
    </li>
  );
}
