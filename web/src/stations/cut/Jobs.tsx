/** The jobs: a sheet, what is done to it in which order and how long it takes, its files, and the cautions. */
import { useMemo } from "react";
import type { CutView, SheetLine, SheetPlan, SheetsView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/fields";
import { many, shown } from "../../ui/figures";
import { TakeAway } from "../../ui/TakeAway";
import { Archive } from "./Archive";
import { ReadBack } from "./ReadBack";
import { useCut, usePlayer } from "./store";
import { clock, type Timed, timed } from "./useSheets";

const LINK = "text-petrol underline hover:no-underline";

interface Props {
  sheets: SheetsView;
  sheet: SheetLine | undefined;
  plan: SheetPlan | undefined;
  cautions: CutView["cautions"];
}

export function Jobs({ sheets, sheet, plan, cautions }: Props) {
  const set = useCut((s) => s.set);
  const play = usePlayer((p) => p.set);
  const runs = useMemo(() => (plan ? timed(plan) : []), [plan]);
  const total = runs.at(-1)?.end ?? 0;
  return (
    <div>
      {sheet ? (
        <>
          <div className="px-3.5 pt-2 pb-2.5">
            <label className="block">
              <span className="sr-only">Sheet</span>
              <select
                className="h-8 w-full rounded border border-faint bg-sheet px-2"
                value={sheet.id}
                onChange={(event) => {
                  set({ sheet: event.target.value });
                  play({ at: 0, playing: false });
                }}
              >
                {sheets.sheets.map((s, n) => (
                  <option key={s.id} value={s.id}>
                    {n + 1}. {s.title}
                  </option>
                ))}
              </select>
            </label>
            <p className="mt-1.5 text-[11px] text-faint">
              {sheet.laid.map((l) => (l.back_up ? `${l.name}, its back up` : l.name)).join("; ")}.{" "}
              {sheet.on_hand ? "Of a sheet on the shelf" : "No such sheet is on the shelf: to be bought"},
              origin lower left{sheet.material === "acrylic" ? ", film on" : ""}.
            </p>
          </div>
          <OnTheBed sheet={sheet} />
          <ol aria-label="Operations in their order">
            {runs.map((run, n) => (
              <Row key={n} run={run} n={n + 1} />
            ))}
          </ol>
          <p className="flex justify-between border-t border-rule px-3.5 py-2.5 font-semibold">
            This sheet <span className="num">{plan ? clock(total) : "…"}</span>
          </p>
          {plan && <MarkCut sheet={sheet} plan={plan} sheets={sheets} />}
          {plan && <Programs sheet={sheet} plan={plan} />}
        </>
      ) : (
        <p className="p-3.5 text-faint">
          No machine of the workshop cuts anything here. What is made by hand is under Files: templates and
          holes. Machines are added at Brief.
        </p>
      )}
      {sheets.unlaid.length > 0 && (
        <div className="border-t border-rule px-3.5 py-2.5">
          <h3 className="text-[12px] font-semibold">On no machine</h3>
          <ul className="mt-1 space-y-1 text-[12px]">
            {sheets.unlaid.map((u) => (
              <li key={u.piece}>
                {u.name} <span className="text-faint">{u.why}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
      <ReadBack sheets={sheets} />
      <div className="border-t border-rule px-3.5 py-2.5">
        <Archive />
      </div>
      <div className="border-t border-rule px-3.5 py-2.5 text-[12px]/[17px]">
        <h3 className="font-semibold">Before you start</h3>
        <ul className="mt-1 space-y-1.5 text-faint">
          {cautions
            .filter((c) => !sheet || !c.startsWith(sheet.kind === "laser" ? "Mill" : "Laser"))
            .map((caution) => (
              <li key={caution}>{caution}</li>
            ))}
        </ul>
      </div>
    </div>
  );
}

/** What is left of the sheet, and what holds it down. */
function OnTheBed({ sheet }: { sheet: SheetLine }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const machine = design.workshop?.machines?.find((m) => m.id === sheet.machine);
  const clamps = machine?.clamps ?? [];
  const set = (next: typeof clamps) =>
    void send([{ do: "edit_machine", machine: sheet.machine, clamps: next }]);
  return (
    <details className="border-t border-rule px-3.5 py-2 text-[12px]">
      <summary className="cursor-pointer">
        Clamps and what is left{clamps.length > 0 ? `: ${many(clamps.length, "clamp")}` : ""}
      </summary>
      {sheet.rest && (
        <p className="mt-2 flex items-center justify-between gap-2">
          <span>
            Left over <span className="num">{shown(sheet.rest.width)}</span> ×{" "}
            <span className="num">{shown(sheet.rest.height)}</span>
          </span>
          <Button
            onClick={() =>
              sheet.rest &&
              void send([
                {
                  do: "add_stock",
                  material: sheet.material,
                  thickness: sheet.thickness,
                  colour: sheet.raw,
                  width: Math.floor(sheet.rest.width),
                  height: Math.floor(sheet.rest.height),
                  price: 0,
                  count: 1,
                  holes: [],
                  grain: "none",
                },
              ])
            }
          >
            Keep as a sheet
          </Button>
        </p>
      )}
      <p className="mt-2 text-[11px] text-faint">
        Clamps on the bed of {sheet.machine_name}, from its lower left corner: nothing is laid or cut there.
      </p>
      {clamps.length > 0 && (
        <p
          aria-hidden="true"
          className="mt-1.5 grid grid-cols-[repeat(4,minmax(0,1fr))_20px] gap-1 text-[11px] text-faint"
        >
          <span>x</span>
          <span>y</span>
          <span>wide</span>
          <span>high</span>
        </p>
      )}
      {clamps.map((clamp, n) => (
        <div key={n} className="mt-1.5 grid grid-cols-[repeat(4,minmax(0,1fr))_20px] items-end gap-1">
          {(["x", "y", "width", "height"] as const).map((field) => (
            <LengthField
              key={field}
              label={`Clamp ${n + 1}, ${field}`}
              bare
              least={field === "x" || field === "y" ? -5000 : 0.1}
              value={clamp[field]}
              onCommit={(value) => set(clamps.map((c, k) => (k === n ? { ...c, [field]: value } : c)))}
            />
          ))}
          <TakeAway what={`clamp ${n + 1}`} onTake={() => set(clamps.filter((_, k) => k !== n))} />
        </div>
      ))}
      <Button
        className="mt-2"
        onClick={() =>
          set([...clamps, { x: sheet.bed_width - 30, y: sheet.bed_height - 30, width: 25, height: 25 }])
        }
      >
        Add a clamp
      </Button>
    </details>
  );
}

function Row({ run, n }: { run: Timed; n: number }) {
  const play = usePlayer((p) => p.set);
  const now = usePlayer((p) => p.at > 0 && p.at >= run.start && p.at < run.end);
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { operation } = run;
  return (
    <li
      className={`grid grid-cols-[auto_minmax(0,1fr)] items-start border-t border-rule ${now ? "bg-wash" : ""}`}
    >
      <label className="flex pt-2.5 pl-3.5">
        <input
          type="checkbox"
          className="accent-petrol"
          aria-label={`${operation.title} is done`}
          checked={design.cutting?.done?.includes(operation.step_id) ?? false}
          onChange={(event) =>
            void send([{ do: "tick", step: operation.step_id, done: event.target.checked }])
          }
        />
      </label>
      <button
        type="button"
        className="grid w-full min-w-0 grid-cols-[18px_1fr_auto] gap-x-1 py-2 pr-3.5 pl-2 text-left hover:bg-warm"
        onClick={() => play({ at: run.start + 0.001, playing: false })}
      >
        <span className="num text-faint">{n}</span>
        <span>
          <span className="block font-semibold">{operation.title}</span>
          <span className="block text-[11px] text-faint">{detail(run)}</span>
          {operation.left_out.length > 0 && (
            <span className="block text-[11px] text-must">
              No tool for {operation.left_out.slice(0, 3).join(", ")}
              {operation.left_out.length > 3 ? ` and ${operation.left_out.length - 3} more` : ""}
            </span>
          )}
        </span>
        <span className="num text-right">{clock(run.end - run.start)}</span>
      </button>
    </li>
  );
}

function detail({ operation: op }: Timed): string {
  const laser = op.rpm === 0;
  const cut = `${many(op.cuts.length, "cut")}, ${shown(op.depth)} deep`;
  const side = op.side === "behind" ? ", from behind" : "";
  if (op.cuts.length === 0) return "";
  return laser
    ? `${cut}, kerf ${op.width}, ${Math.round(op.feed / 60)} mm/s${side}`
    : `${cut}, ${op.tool}, ${op.rpm} a minute, ${op.feed} mm/min${side}`;
}

/** Says that a sheet is cut: from then on what is changed of its pieces is named. */
function MarkCut({ sheet, plan, sheets }: { sheet: SheetLine; plan: SheetPlan; sheets: SheetsView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const pieces = [...new Set(sheet.laid.map((l) => l.piece))];
  const mine = sheets.pieces.filter((p) => pieces.includes(p.id));
  const cut = mine.length > 0 && mine.every((p) => p.cut);
  const again = mine.filter((p) => p.again.length > 0);
  return (
    <div className="border-t border-rule px-3.5 py-2.5 text-[12px]">
      {cut ? (
        <p className="flex items-center justify-between gap-2">
          <span className={again.length > 0 ? "text-judge" : "text-ok"}>
            {again.length > 0 ? "Changed since it was cut" : "Cut, as it is now"}
          </span>
          <Button onClick={() => void send([{ do: "unmark_cut", pieces }])}>Not cut</Button>
        </p>
      ) : (
        <Button onClick={() => void send([{ do: "mark_cut", pieces: plan.marks }])}>
          Mark this sheet as cut
        </Button>
      )}
      {again.map((piece) => (
        <p key={piece.id} className="mt-1 text-[11px] text-judge">
          {piece.name}: {piece.again.join("; ")}
        </p>
      ))}
      {again.length > 0 && (
        <Button className="mt-1.5" onClick={() => void send([{ do: "mark_cut", pieces: plan.marks }])}>
          It is cut again
        </Button>
      )}
    </div>
  );
}

function Programs({ sheet, plan }: { sheet: SheetLine; plan: SheetPlan }) {
  const { id } = useDesign();
  return (
    <div className="border-t border-rule px-3.5 py-2.5">
      <h3 className="text-[12px] font-semibold">Programs</h3>
      <p className="num mt-1 text-[11px] break-all text-faint">{sheet.folder}/</p>
      <ul className="num mt-0.5 flex flex-wrap gap-x-3 text-[11px]">
        {plan.files.map((name) => (
          <li key={name}>
            <a className={LINK} href={`/api/designs/${id}/sheets/${sheet.id}/${name}`} download>
              {name}
            </a>
          </li>
        ))}
      </ul>
    </div>
  );
}
