/** The functions beside the drawer: which want a part, one after the other, or several at once. */
import { useEffect, useRef, useState } from "react";
import type { Fn } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";
import { Button } from "../../ui/Button";

interface Props {
  onBest: (functions: Fn[]) => void;
}

export const partless = (functions: readonly Fn[]): Fn[] =>
  functions.filter((f) => f.part === null && f.state !== "alias");

export function FunctionList({ onBest }: Props) {
  const { design } = useDesign();
  const selection = useSession((s) => s.selection);
  const bare = partless(design.functions);
  const [all, setAll] = useState(bare.length === 0);
  const rows =
    all || bare.length === 0
      ? design.functions
      : design.functions.filter((f) => bare.includes(f) || selection.includes(f.id));
  const names = new Map(design.parts.map((p) => [p.id, p.name]));
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector("[aria-selected=true]")?.scrollIntoView({ block: "nearest" });
  }, [selection]);
  const pick = (event: React.MouseEvent, fn: Fn) => {
    const { select, toggle } = useSession.getState();
    if (event.ctrlKey || event.metaKey) return toggle(fn.id);
    const last = rows.findIndex((f) => f.id === selection.at(-1));
    const now = rows.indexOf(fn);
    if (event.shiftKey && last >= 0)
      return select(rows.slice(Math.min(last, now), Math.max(last, now) + 1).map((f) => f.id));
    select([fn.id]);
  };
  const keys = (event: React.KeyboardEvent) => {
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    const now = rows.findIndex((f) => f.id === selection.at(-1));
    const next = rows[Math.max(0, Math.min(rows.length - 1, now + by))];
    if (!by || !next) return;
    event.preventDefault();
    event.stopPropagation();
    useSession.getState().select(event.shiftKey ? [...new Set([...selection, next.id])] : [next.id]);
  };
  return (
    <section
      aria-label="Functions"
      className="flex min-h-0 flex-col border-r border-rule bg-sheet max-[1240px]:hidden"
    >
      <div className="flex items-baseline justify-between px-3 pt-3 pb-1 text-[12px]">
        <h2>{bare.length ? `${bare.length} without a part` : "Every one has a part"}</h2>
        {bare.length > 0 && (
          <button type="button" className="text-[11px] text-petrol underline" onClick={() => setAll(!all)}>
            {all ? "only those" : "all"}
          </button>
        )}
      </div>
      <ul
        ref={list}
        role="listbox"
        aria-label="Functions to give parts"
        aria-multiselectable="true"
        tabIndex={0}
        aria-activedescendant={
          selection[0] && rows.some((f) => f.id === selection[0]) ? `want-${selection[0]}` : undefined
        }
        className="min-h-0 flex-1 overflow-y-auto outline-offset-[-2px]"
        onKeyDown={keys}
      >
        {rows.map((fn) => (
          <li
            key={fn.id}
            id={`want-${fn.id}`}
            role="option"
            aria-selected={selection.includes(fn.id)}
            className={`cursor-pointer px-3 py-1 select-none hover:bg-warm ${selection.includes(fn.id) ? "bg-wash!" : ""}`}
            onClick={(event) => pick(event, fn)}
          >
            <span className="block truncate">{fn.name}</span>
            <span className={`block truncate text-[11px]/[14px] ${fn.part ? "text-faint" : "text-judge"}`}>
              {fn.part ? names.get(fn.part) : fn.want || "no part yet"}
            </span>
          </li>
        ))}
      </ul>
      {bare.length > 0 && (
        <div className="border-t border-rule p-3">
          <Button onClick={() => onBest(bare)}>Give all {bare.length} their best</Button>
          <p className="mt-1 text-[11px]/[14px] text-faint">
            {many(bare.length, "function")}: each the part that suits it best here. Undo takes it all back.
          </p>
        </div>
      )}
    </section>
  );
}
