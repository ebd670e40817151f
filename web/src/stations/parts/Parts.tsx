/** Parts: the drawer at one common scale, and the sheet of the part that is picked. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { PartSheet } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { PartFront, reach } from "../../panel/shapes";
import { Sheet } from "./Sheet";

const FAMILIES = [
  ["all", "All", []],
  ["toggles", "Toggles", ["toggle"]],
  ["buttons", "Buttons", ["button", "emergency", "key"]],
  ["rotary", "Rotary", ["rotary", "encoder", "pot"]],
  ["lamps", "Lamps", ["lamp", "caption"]],
  ["readouts", "Read-outs", ["readout"]],
  ["used", "Used here", null],
] as const;

export default function Parts() {
  const { id, revision, design } = useDesign();
  const selection = useSession((s) => s.selection);
  const [family, setFamily] = useState<string>("all");
  const [picked, setPicked] = useState<string | null>(null);
  const drawer = useQuery({
    queryKey: ["drawer", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/parts", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!drawer.data) return <p className="p-4 text-faint">Opening the drawer…</p>;
  const wanted = FAMILIES.find(([key]) => key === family)?.[2] ?? null;
  const shownSheets = drawer.data.sheets.filter((s) =>
    wanted === null
      ? s.used_by.length > 0
      : wanted.length === 0 || (wanted as readonly string[]).includes(s.part.family),
  );
  const chosen = design.functions.find((f) => f.id === selection[0]);
  const sheet =
    drawer.data.sheets.find((s) => s.part.id === (picked ?? chosen?.part)) ??
    shownSheets[0] ??
    drawer.data.sheets[0];
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_minmax(380px,440px)]">
      <section aria-label="Drawer" className="flex min-h-0 flex-col">
        <div
          role="tablist"
          aria-label="Families"
          className="flex h-9 shrink-0 items-end gap-4 px-4 text-[12px]"
        >
          {FAMILIES.map(([key, words]) => (
            <button
              key={key}
              type="button"
              role="tab"
              aria-selected={key === family}
              className={`border-b-2 pb-0.5 whitespace-nowrap ${key === family ? "border-petrol font-semibold" : "border-transparent text-faint hover:text-ink"}`}
              onClick={() => setFamily(key)}
            >
              {words}
            </button>
          ))}
        </div>
        <div className="min-h-0 flex-1 overflow-y-auto p-4">
          <Shelves sheets={shownSheets} picked={sheet?.part.id ?? ""} onPick={setPicked} />
        </div>
      </section>
      <section aria-label="Part" className="overflow-y-auto border-l border-rule bg-sheet">
        {sheet && <Sheet sheet={sheet} drawer={drawer.data} chosen={chosen} />}
      </section>
    </div>
  );
}

const SCALE = 1.7;

/** Every part from the front, all at one scale, standing on a shelf. */
function Shelves({
  sheets,
  picked,
  onPick,
}: {
  sheets: PartSheet[];
  picked: string;
  onPick: (id: string) => void;
}) {
  if (sheets.length === 0) return <p className="text-faint">No part of this design is in this family yet.</p>;
  return (
    <ul className="flex flex-wrap items-end gap-x-1 gap-y-5">
      {sheets.map(({ part, used_by }) => {
        const { width, height } = reach(part.cover);
        return (
          <li key={part.id}>
            <button
              type="button"
              aria-pressed={part.id === picked}
              className={`flex flex-col items-center rounded border px-2 pt-2 pb-1 ${part.id === picked ? "border-petrol bg-warm" : "border-transparent hover:border-rule"}`}
              style={{ minWidth: 96 }}
              onClick={() => onPick(part.id)}
            >
              <svg
                width={width * SCALE + 4}
                height={height * SCALE + 4}
                viewBox={`${-width / 2 - 1} ${-height / 2 - 1} ${width + 2} ${height + 2}`}
                aria-hidden="true"
              >
                <g transform="scale(1 -1)">
                  <PartFront front={part.front} />
                </g>
              </svg>
              <span className="mt-1 h-[3px] w-full bg-faint/40" />
              <span className="mt-1 max-w-28 text-center text-[11px]/[14px]">{part.name}</span>
              <span className="num text-[11px] text-faint">{used_by.length || "–"}</span>
            </button>
          </li>
        );
      })}
    </ul>
  );
}
