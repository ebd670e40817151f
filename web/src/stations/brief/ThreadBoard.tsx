/** One row a function: what it needs, and how far it has got. Filtered, grouped, reordered and removed by keys. */
import { type KeyboardEvent, type MouseEvent, useEffect, useRef, useState } from "react";
import { removeFunction } from "../../api/commands";
import type { Fn } from "../../api/types";
import { type Changes, useChanges, useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";
import { AddLine } from "./AddLine";
import { Forgotten } from "./Forgotten";
import { PasteSheet } from "./PasteSheet";
import { STAGES, ThreadRow } from "./ThreadRow";

export function ThreadBoard() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const [filter, setFilter] = useState("");
  useEffect(() => {
    document.querySelector("[data-row][aria-pressed=true]")?.scrollIntoView({ block: "center" });
  }, []);
  const [pasted, setPasted] = useState<string | null>(null);
  const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
  const wanted = view.design.functions.filter((f) => {
    const text = `${f.name} ${f.group} ${f.want} ${f.state} ${f.switches.bus} ${f.risk}`.toLowerCase();
    return words.every((w) => text.includes(w));
  });
  const groups = grouped(wanted);
  const order = groups.flatMap(([, rows]) => rows);
  return (
    <section aria-label="Functions" className="flex min-h-0 flex-col border-r border-rule bg-sheet">
      <div className="flex items-end justify-between gap-3 px-3.5 pt-3 pb-1">
        <h2 className="min-w-0 text-[13px] whitespace-nowrap">
          What the panel must do{" "}
          <span className="font-normal text-faint">{many(view.design.functions.length, "function")}</span>
        </h2>
        <span
          className="grid w-[210px] shrink-0 grid-cols-6 text-center text-[11px] text-faint"
          aria-hidden="true"
        >
          {STAGES.map(([, word]) => (
            <span key={word}>{word}</span>
          ))}
        </span>
      </div>
      {view.design.functions.length > 0 && (
        <Tools filter={filter} onFilter={setFilter} shown={order.length} onPaste={() => setPasted("")} />
      )}
      <div
        className="min-h-0 flex-1 overflow-y-auto pb-2"
        onKeyDown={(event) => boardKeys(event, order, view.design.functions, changes)}
      >
        {groups.map(([group, rows]) => (
          <section key={group} aria-label={group || "Without a group"}>
            <h3 className="flex items-center gap-2 px-3.5 pt-3 pb-1 text-[12px] text-faint">
              {group || "Without a group"}
              <span className="h-px flex-1 bg-rule" />
            </h3>
            <ul>
              {rows.map((fn) => (
                <ThreadRow key={fn.id} fn={fn} view={view} onPick={(event) => picked(event, fn, order)} />
              ))}
            </ul>
          </section>
        ))}
        {view.design.functions.length === 0 && (
          <p className="px-3.5 py-4 text-faint">
            Nothing listed yet. Type the first thing the panel must do below, or paste a list from a
            spreadsheet.
          </p>
        )}
        {view.design.functions.length > 0 && order.length === 0 && (
          <p className="px-3.5 py-4 text-faint">No function matches.</p>
        )}
      </div>
      <Forgotten />
      <AddLine onPasted={setPasted} />
      {pasted !== null && <PasteSheet text={pasted} onClose={() => setPasted(null)} />}
    </section>
  );
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

function boardKeys(
  event: KeyboardEvent<HTMLElement>,
  order: readonly Fn[],
  all: readonly Fn[],
  { send }: Changes,
): void {
  const { selection, select } = useSession.getState();
  const row = (event.target as HTMLElement).closest<HTMLElement>("[data-row]")?.dataset["row"];
  const now = order.findIndex((f) => f.id === (row ?? selection[0]));
  const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
  const taken = () => {
    event.preventDefault();
    event.stopPropagation();
  };
  if (by && event.altKey && selection.length) {
    taken();
    const before = neighbour(all, selection, by);
    if (before !== undefined) void send([{ do: "move_functions", functions: selection, before }]);
  } else if (by) {
    const next = order[Math.max(0, Math.min(order.length - 1, now + by))];
    if (!next) return;
    taken();
    select(event.shiftKey ? [...new Set([...selection, next.id])] : [next.id]);
    document.getElementById(`row-${next.id}`)?.focus();
  } else if (event.key === "Delete" && selection.length) {
    taken();
    void send(selection.map(removeFunction));
    select([]);
  }
}

/** The row the moved ones come to stand before: null is the end, undefined says that they cannot go further. */
function neighbour(all: readonly Fn[], moving: readonly string[], by: number): string | null | undefined {
  const first = all.find((f) => moving.includes(f.id));
  const rest = all.filter((f) => !moving.includes(f.id) && f.group === first?.group);
  const before = all.findIndex((f) => f.id === first?.id);
  const at = rest.filter((f) => all.indexOf(f) < before).length;
  if (by < 0) return at === 0 ? undefined : rest[at - 1]?.id;
  return at >= rest.length ? undefined : (rest[at + 1]?.id ?? null);
}

interface ToolsProps {
  filter: string;
  onFilter: (text: string) => void;
  shown: number;
  onPaste: () => void;
}

function Tools({ filter, onFilter, shown, onPaste }: ToolsProps) {
  const view = useDesign();
  const field = useRef<HTMLInputElement>(null);
  useCommands({ "brief.filter": () => field.current?.focus() });
  return (
    <div className="flex items-center gap-2 px-3.5 pb-1 text-[12px]">
      <input
        ref={field}
        aria-label="Filter functions"
        placeholder="Filter…  F"
        className="h-7 w-40 rounded border border-rule bg-sheet px-2 placeholder:text-faint"
        value={filter}
        onChange={(event) => onFilter(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === "Escape") {
            onFilter("");
            event.currentTarget.blur();
          }
        }}
      />
      {filter && <span className="text-faint">{shown} shown</span>}
      <span className="flex-1" />
      <button type="button" className="rounded px-1.5 py-0.5 text-petrol underline" onClick={onPaste}>
        Paste or import a list
      </button>
      <a
        className="rounded px-1.5 py-0.5 text-petrol underline"
        href={`/api/designs/${view.id}/brief/list.csv`}
        download
      >
        Export the list
      </a>
    </div>
  );
}
