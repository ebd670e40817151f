/** A function in one row of cells: what it is and needs, then the stages it has passed. */
import { memo, type MouseEvent } from "react";
import type { DesignView, Fn } from "../../api/types";
import { useQueue } from "../../app/queue";
import { useSession } from "../../app/session";
import { type At, cellText, type Column, HEADS, isStage, loadText, type Stage } from "./columns";
import { editCell, focusCell, type GridContext, leaveCell, useGrid, useHere } from "./grid";
import { StageCell } from "./StageCell";

interface Props {
  fn: Fn;
  columns: readonly (Column | Stage)[];
  template: string;
  thread: DesignView["threads"][string] | undefined;
  partName: string;
  /** The first row of all: it holds the one tab stop until a cell has had the focus. */
  first: boolean;
  context: () => GridContext;
  onPick: (event: MouseEvent, fn: Fn) => void;
}

export const GridRow = memo(function GridRow({
  fn,
  columns,
  template,
  thread,
  partName,
  first,
  context,
  onPick,
}: Props) {
  const selected = useSession((s) => s.selection.includes(fn.id));
  const hot = useSession((s) => s.hot.includes(fn.id));
  return (
    <div
      role="row"
      data-row={fn.id}
      aria-selected={selected}
      className={`scroll-mt-12 grid h-[30px] select-none items-center px-3.5 hover:bg-warm ${selected || hot ? "bg-wash!" : ""}`}
      style={{ gridTemplateColumns: template }}
      onClick={(event) => onPick(event, fn)}
    >
      {columns.map((column) =>
        isStage(column) ? (
          <StageCell
            key={column}
            fn={fn}
            stage={column}
            passed={thread?.[column] ?? false}
            context={context}
          />
        ) : (
          <Cell
            key={column}
            fn={fn}
            column={column}
            stop={first && column === "name"}
            faint={column === "want" && !fn.want ? partName : ""}
            tail={
              column === (columns.includes("want") ? "want" : "name") && !columns.includes("load") ? (
                <Rest fn={fn} want={!columns.includes("want")} partName={partName} />
              ) : undefined
            }
            context={context}
          />
        ),
      )}
    </div>
  );
});

/** What was typed there and waits to be kept. */
function useWaitingText(fn: string, column: Column): string | undefined {
  return useQueue((s) => {
    for (const one of s.waiting) {
      if (one.kept !== null || one.ask.to !== "cells") continue;
      const cell = one.ask.cells.findLast((c) => c.function === fn && c.column === column);
      if (cell) return cell.text;
    }
    return undefined;
  });
}

interface CellProps {
  fn: Fn;
  column: Column;
  stop: boolean;
  /** Shown where nothing is said. */
  faint: string;
  tail: React.ReactNode;
  context: () => GridContext;
}

function Cell({ fn, column, stop, faint, tail, context }: CellProps) {
  const at: At = { fn: fn.id, column };
  const here = useHere(at);
  const draft = useGrid((s) => (here ? s.draft : null));
  const nowhere = useGrid((s) => s.at === null);
  const waiting = useWaitingText(fn.id, column);
  const text = waiting ?? cellText(fn, column);
  if (draft !== null)
    return (
      <div role="gridcell" className="min-w-0 pr-2">
        <Typing at={at} draft={draft} context={context} />
      </div>
    );
  return (
    <div
      id={`cell-${fn.id}-${column}`}
      role="gridcell"
      tabIndex={here || (nowhere && stop) ? 0 : -1}
      className={`-ml-1.5 flex h-full min-w-0 items-center pr-2 pl-1.5 outline-offset-[-2px] ${waiting === undefined ? "" : "italic"} ${column === "name" ? "" : "text-[12px] text-faint"}`}
      onFocus={() => useGrid.getState().set({ at })}
      onDoubleClick={() => editCell(context(), at, null)}
    >
      <span className={`truncate ${column === "name" ? "max-w-[75%] shrink-0" : ""}`} title={text}>
        {text || <i>{faint}</i>}
      </span>
      {tail}
      {column === "name" && <Standing fn={fn} />}
    </div>
  );
}

function Typing({ at, draft, context }: { at: At; draft: string; context: () => GridContext }) {
  const { set } = useGrid.getState();
  return (
    <input
      autoFocus
      aria-label={`${HEADS[at.column as Column]} of the function`}
      className="h-[26px] w-full rounded-sm border border-petrol bg-sheet px-1.5 outline-none"
      value={draft}
      maxLength={200}
      autoComplete="off"
      onChange={(event) => set({ draft: event.target.value })}
      onBlur={() => {
        if (useGrid.getState().draft !== null) leaveCell(context(), at, 0, 0);
      }}
      onKeyDown={(event) => {
        const [down, right] =
          event.key === "Enter"
            ? [event.shiftKey ? -1 : 1, 0]
            : event.key === "Tab"
              ? [0, event.shiftKey ? -1 : 1]
              : [0, 0];
        event.stopPropagation();
        if (down || right) {
          event.preventDefault();
          leaveCell(context(), at, down, right);
        } else if (event.key === "Escape") focusCell(at);
      }}
    />
  );
}

/** What has no column of its own in a narrow list. */
function Rest({ fn, want, partName }: { fn: Fn; want: boolean; partName: string }) {
  return (
    <>
      {want && (
        <span className="min-w-0 flex-1 truncate pl-2 text-[12px] text-faint">{fn.want || partName}</span>
      )}
      <Load fn={fn} />
    </>
  );
}

/** The load, where it has no column of its own and the words do not say it already. */
function Load({ fn }: { fn: Fn }) {
  const text = loadText(fn);
  const said = fn.want.includes(`${fn.switches.amps} A`) || fn.want.includes(`${fn.switches.volts} V`);
  return text && !said ? <span className="num pl-1.5 text-[11px] text-faint">{text}</span> : null;
}

function Standing({ fn }: { fn: Fn }) {
  const says = [
    fn.risk === "emergency" && "emergency",
    fn.risk === "guarded" && "guarded",
    fn.state !== "wanted" && fn.state,
  ].filter(Boolean);
  return says.length > 0 ? (
    <i className="shrink-0 pl-1.5 text-[11px] text-judge not-italic">{says.join(", ")}</i>
  ) : null;
}
