/** The keys of the function list: as in a spreadsheet, with one tab stop. */
import { create } from "zustand";
import { removeFunction } from "../../api/commands";
import type { CellText, Fn } from "../../api/types";
import type { Changes } from "../../app/design";
import type { Station } from "../../app/stations";
import { useSession } from "../../app/session";
import { type At, cellText, type Column, isStage, type Stage, STAGES } from "./columns";

interface Grid {
  at: At | null;
  /** What is being typed into the cell there; null while nothing is. */
  draft: string | null;
  set: (changes: Partial<Omit<Grid, "set">>) => void;
}

export const useGrid = create<Grid>((set) => ({ at: null, draft: null, set: (changes) => set(changes) }));

/** Whether a cell has the focus, or had it last. */
export const useHere = (at: At): boolean => useGrid((s) => s.at?.fn === at.fn && s.at.column === at.column);

export interface GridContext {
  /** The rows as they are shown. */
  order: readonly Fn[];
  all: readonly Fn[];
  columns: readonly (Column | Stage)[];
  changes: Changes;
  /** Go to a station, for the selected function. */
  go: (station: Station["id"]) => void;
}

const cellId = ({ fn, column }: At) => `cell-${fn}-${column}`;

/** Put the focus into a cell, and select its row. */
export function focusCell(at: At, keep = false): void {
  useGrid.getState().set({ at, draft: null });
  if (!keep) useSession.getState().select([at.fn]);
  requestAnimationFrame(() => {
    const cell = document.getElementById(cellId(at));
    cell?.focus({ preventScroll: true });
    cell?.scrollIntoView({ block: "nearest" });
  });
}

function step({ order, columns }: GridContext, at: At, down: number, right: number): At {
  const row = order.findIndex((f) => f.id === at.fn);
  const column = columns.indexOf(at.column);
  const flat = column + right;
  const wrapped = flat < 0 ? -1 : flat >= columns.length ? 1 : 0;
  const nextRow = Math.max(0, Math.min(order.length - 1, row + down + wrapped));
  const nextColumn = wrapped ? (wrapped > 0 ? 0 : columns.length - 1) : flat;
  return { fn: order[nextRow]?.id ?? at.fn, column: columns[nextColumn] ?? at.column };
}

const current = ({ order }: GridContext, at: At): Fn | undefined => order.find((f) => f.id === at.fn);

/** Keep what was typed; nothing is asked for where it says what was there. */
function commit(context: GridContext, at: At): void {
  const { draft } = useGrid.getState();
  const fn = current(context, at);
  if (draft === null || !fn || isStage(at.column) || draft === cellText(fn, at.column)) return;
  void context.changes.fill([{ row: 0, function: fn.id, column: at.column, text: draft }]);
}

/** Leave a cell that is being typed into, to the next one: Tab goes right, Enter down. */
export function leaveCell(context: GridContext, at: At, down: number, right: number): void {
  commit(context, at);
  const text = context.columns.filter((c) => !isStage(c));
  focusCell(step({ ...context, columns: right ? text : context.columns }, at, down, right));
}

/** Begin to type into a cell: over what is there, or on with it. */
export function editCell(context: GridContext, at: At, over: string | null): void {
  const fn = current(context, at);
  if (!fn || isStage(at.column)) return;
  useGrid.getState().set({ at, draft: over ?? cellText(fn, at.column) });
}

function lead({ go }: GridContext, at: At): void {
  const stage = STAGES.find(([key]) => key === at.column);
  useSession.getState().select([at.fn]);
  if (stage) go(stage[2]);
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};

/** A key on a cell that is not being typed into; says whether it was one of the grid's. */
export function gridKey(event: React.KeyboardEvent, context: GridContext, at: At): boolean {
  const { selection: chosen, select } = useSession.getState();
  const selection = chosen.includes(at.fn) ? chosen : [at.fn];
  const arrow = ARROWS[event.key];
  if (arrow && event.altKey && arrow[0]) {
    const before = neighbour(context.all, selection, arrow[0]);
    if (before !== undefined)
      void context.changes.send([{ do: "move_functions", functions: selection, before }]);
  } else if (arrow) {
    const next = step(context, at, ...arrow);
    focusCell(next, event.shiftKey);
    if (event.shiftKey) select([...new Set([...selection, next.fn])]);
  } else if (event.key === "Home" || event.key === "End") {
    const column = event.key === "Home" ? context.columns[0] : context.columns.at(-1);
    if (column) focusCell({ fn: at.fn, column });
  } else if (event.key === "Enter" || event.key === "F2") {
    if (isStage(at.column)) lead(context, at);
    else editCell(context, at, null);
  } else if (event.key === "Escape") {
    select([]);
    (event.target as HTMLElement).blur();
  } else if (event.key === "Delete" || event.key === "Backspace") {
    clear(context, at, selection);
  } else if (event.key.toLowerCase() === "d" && (event.ctrlKey || event.metaKey)) {
    fillDown(context, at, selection);
  } else if (
    event.key.length === 1 &&
    !event.ctrlKey &&
    !event.metaKey &&
    !event.altKey &&
    !isStage(at.column)
  ) {
    if (event.key === " ") return false;
    editCell(context, at, event.key);
  } else return false;
  return true;
}

/** On a name, or with several rows, the functions go (and come back by undo); else the cell is emptied. */
function clear({ changes }: GridContext, at: At, selection: readonly string[]): void {
  if (at.column === "name" || selection.length > 1) {
    useSession.getState().select([]);
    void changes.send((selection.length ? selection : [at.fn]).map(removeFunction));
  } else if (!isStage(at.column))
    void changes.fill([{ row: 0, function: at.fn, column: at.column, text: "" }]);
}

/** The first of the selected rows gives its cell to the others. */
function fillDown({ order, changes }: GridContext, at: At, selection: readonly string[]): void {
  const { column } = at;
  const rows = order.filter((f) => selection.includes(f.id));
  const [first] = rows;
  if (!first || rows.length < 2 || isStage(column) || column === "name") return;
  const text = cellText(first, column);
  void changes.fill(rows.slice(1).map((f): CellText => ({ row: 0, function: f.id, column, text })));
}

/** Cells pasted from here to the right and down; rows below the last are new. One value fills all selected rows. */
export function pasteAt({ order, columns, changes }: GridContext, at: At, text: string): void {
  const block = text
    .replace(/\r\n?/g, "\n")
    .replace(/\n+$/, "")
    .split("\n")
    .map((line) => line.split("\t"));
  const written = columns.filter((c) => !isStage(c));
  const first = order.findIndex((f) => f.id === at.fn);
  const from = written.findIndex((c) => c === at.column);
  const { selection } = useSession.getState();
  if (from < 0) return;
  const single = block.length === 1 && block[0]?.length === 1 && selection.length > 1;
  const lines = single ? selection.map(() => block[0] ?? []) : block;
  const cells = lines.flatMap((line, n) =>
    line.flatMap((cell, m): CellText[] => {
      const column = written[from + m];
      const row = single ? order.findIndex((f) => f.id === selection[n]) : first + n;
      return column ? [{ row, function: order[row]?.id ?? null, column, text: cell.trim() }] : [];
    }),
  );
  if (cells.length) void changes.fill(cells);
}

/** The selected rows as cells of a spreadsheet. */
export const copied = ({ order, columns }: GridContext, selection: readonly string[]): string =>
  order
    .filter((f) => selection.includes(f.id))
    .map((f) => columns.flatMap((c) => (isStage(c) ? [] : [cellText(f, c)])).join("\t"))
    .join("\n");

/** The row the moved ones come to stand before: null is the end, undefined says that they cannot go further. */
function neighbour(all: readonly Fn[], moving: readonly string[], by: number): string | null | undefined {
  const first = all.find((f) => moving.includes(f.id));
  const rest = all.filter((f) => !moving.includes(f.id) && f.group === first?.group);
  const before = all.findIndex((f) => f.id === first?.id);
  const at = rest.filter((f) => all.indexOf(f) < before).length;
  if (by < 0) return at === 0 ? undefined : rest[at - 1]?.id;
  return at >= rest.length ? undefined : (rest[at + 1]?.id ?? null);
}
