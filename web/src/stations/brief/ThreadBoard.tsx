/** The function list as a grid: typed, pasted and filled as in a spreadsheet, with how far each function has got. */
import { type MouseEvent, useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useGo } from "../../app/place";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";
import { AddLine } from "./AddLine";
import { columnsIn, HEADS, isStage, type Stage, STAGE_WIDTH, STAGES, WIDTHS } from "./columns";
import { Forgotten } from "./Forgotten";
import { copied, type GridContext, gridKey, pasteAt, useGrid } from "./grid";
import { GridRow } from "./GridRow";
import { ListTools } from "./ListTools";
import { PasteSheet } from "./PasteSheet";

export function ThreadBoard() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const go = useGo(view.id);
  const frame = useRef<HTMLElement>(null);
  const width = useWidth(frame);
  const [filter, setFilter] = useState("");
  const [lacking, setLacking] = useState<Stage | null>(null);
  const [pasted, setPasted] = useState<string | null>(null);
  const { functions, parts } = view.design;
  const names = useMemo(() => new Map(parts.map((p) => [p.id, p.name])), [parts]);
  const groups = grouped(wantedOf(functions, filter, (f) => !lacking || !view.threads[f.id]?.[lacking]));
  const order = groups.flatMap(([, rows]) => rows);
  const columns = useMemo(() => [...columnsIn(width), ...STAGES.map(([stage]) => stage)], [width]);
  const template = columns.map((c) => (isStage(c) ? `${STAGE_WIDTH}px` : WIDTHS[c])).join(" ");
  const now = useRef<GridContext>({ order, all: functions, columns, changes, go });
  useEffect(() => {
    now.current = { order, all: functions, columns, changes, go };
  });
  const context = useCallback(() => now.current, []);
  const pick = useCallback((event: MouseEvent, fn: Fn) => picked(event, fn, now.current.order), []);
  const last = useSession((s) => s.selection.at(-1));
  const met = useRef(false);
  useEffect(() => {
    // What was just added, found or stepped to is in sight; on coming here with what is around it.
    const row = last ? frame.current?.querySelector(`[data-row="${last}"]`) : null;
    row?.scrollIntoView({ block: met.current ? "nearest" : "center" });
    met.current = true;
  }, [last, functions.length]);
  const keys = (event: React.KeyboardEvent) => {
    const { at, draft } = useGrid.getState();
    if (!at || draft !== null || !(event.target as HTMLElement).closest("[role=gridcell]")) return;
    if (!gridKey(event, now.current, at)) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const clipboard = (event: React.ClipboardEvent) => {
    const { at, draft } = useGrid.getState();
    if (!at || draft !== null) return;
    event.preventDefault();
    if (event.type === "paste") pasteAt(now.current, at, event.clipboardData.getData("text"));
    else event.clipboardData.setData("text", copied(now.current, useSession.getState().selection));
  };
  return (
    <section
      ref={frame}
      aria-label="Functions"
      className="flex min-h-0 flex-col border-r border-rule bg-sheet"
    >
      <h2 className="px-3.5 pt-3 pb-1 text-[13px] whitespace-nowrap">
        What the panel must do{" "}
        <span className="font-normal text-faint">{many(functions.length, "function")}</span>
      </h2>
      {functions.length > 0 && (
        <ListTools filter={filter} onFilter={setFilter} shown={order.length} onPaste={() => setPasted("")} />
      )}
      <div
        role="grid"
        aria-label="Function list"
        aria-multiselectable="true"
        className="min-h-0 flex-1 overflow-y-auto pb-2"
        onKeyDown={keys}
        onPaste={clipboard}
        onCopy={clipboard}
      >
        {functions.length > 0 && (
          <Heads template={template} columns={columns} lacking={lacking} onLacking={setLacking} />
        )}
        {groups.map(([group, rows]) => (
          <div role="rowgroup" key={group} aria-label={group || "Without a group"}>
            <p
              className="flex items-center gap-2 px-3.5 pt-3 pb-1 text-[12px] text-faint"
              role="presentation"
            >
              {group || "Without a group"}
              <span className="h-px flex-1 bg-rule" />
            </p>
            {rows.map((fn) => (
              <GridRow
                key={fn.id}
                fn={fn}
                columns={columns}
                template={template}
                thread={view.threads[fn.id]}
                partName={names.get(fn.part ?? "") ?? ""}
                first={fn === order[0]}
                context={context}
                onPick={pick}
              />
            ))}
          </div>
        ))}
      </div>
      {functions.length === 0 && (
        <p className="flex-1 px-3.5 py-4 text-faint">
          Nothing listed yet. Type the first thing the panel must do below, or paste a list from a
          spreadsheet.
        </p>
      )}
      {functions.length > 0 && order.length === 0 && (
        <p className="px-3.5 py-4 text-faint">
          {lacking ? `Every function has passed “${lacking}”.` : "No function matches."}
        </p>
      )}
      <Forgotten />
      <AddLine onPasted={setPasted} />
      {pasted !== null && <PasteSheet text={pasted} onClose={() => setPasted(null)} />}
    </section>
  );
}

interface HeadsProps {
  template: string;
  columns: readonly GridContext["columns"][number][];
  lacking: Stage | null;
  onLacking: (stage: Stage | null) => void;
}

/** The heads of the columns; one of a stage shows only what has not passed it. */
function Heads({ template, columns, lacking, onLacking }: HeadsProps) {
  return (
    <div
      role="row"
      className="sticky top-0 z-10 grid items-end bg-sheet px-3.5 pt-1 text-[11px] text-faint"
      style={{ gridTemplateColumns: template }}
    >
      {columns.map((column) =>
        isStage(column) ? (
          <span key={column} role="columnheader" className="relative h-9">
            <button
              type="button"
              tabIndex={-1}
              aria-pressed={lacking === column}
              title={lacking === column ? "Show all" : `Show only what has no ${column} yet`}
              className={`absolute bottom-0.5 left-1/2 origin-bottom-left -rotate-45 rounded px-0.5 hover:text-ink ${lacking === column ? "font-semibold text-petrol" : ""}`}
              onClick={() => onLacking(lacking === column ? null : column)}
            >
              {column}
            </button>
          </span>
        ) : (
          <span key={column} role="columnheader" className="truncate pb-0.5">
            {HEADS[column]}
          </span>
        ),
      )}
    </div>
  );
}

function useWidth(frame: React.RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(520);
  useEffect(() => {
    const element = frame.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => entry && setWidth(entry.contentRect.width));
    observer.observe(element);
    return () => observer.disconnect();
  }, [frame]);
  return width;
}

function wantedOf(functions: readonly Fn[], filter: string, also: (fn: Fn) => boolean): Fn[] {
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  return functions.filter((f) => {
    const text = `${f.name} ${f.group} ${f.want} ${f.state} ${f.switches.bus} ${f.risk}`.toLowerCase();
    return words.every((w) => text.includes(w)) && also(f);
  });
}

function grouped(functions: readonly Fn[]): [string, Fn[]][] {
  const groups = new Map<string, Fn[]>();
  for (const fn of functions) groups.set(fn.group, [...(groups.get(fn.group) ?? []), fn]);
  return [...groups];
}

/** A click selects; with Shift up to there, with Ctrl one more. */
function picked(event: MouseEvent, fn: Fn, order: readonly Fn[]): void {
  const { selection, select, toggle } = useSession.getState();
  if (event.ctrlKey || event.metaKey) return toggle(fn.id);
  if (event.shiftKey) return select(span(order, selection.at(-1) ?? fn.id, fn.id));
  select([fn.id]);
}

function span(order: readonly Fn[], from: string, to: string): string[] {
  const ids = order.map((f) => f.id);
  const [a, b] = [ids.indexOf(from), ids.indexOf(to)].sort((x, y) => x - y);
  return ids.slice(Math.max(0, a ?? 0), (b ?? 0) + 1);
}
