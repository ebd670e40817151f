/** One row a function: what it needs, and how far it has got. */
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import { addFunction, removeFunction } from "../../api/commands";
import type { DesignView, Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";

const STAGES = [
  ["part", "part"],
  ["place", "place"],
  ["legend", "word"],
  ["pin", "pin"],
] as const;

export function ThreadBoard() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const groups = grouped(view.design.functions);
  const order = groups.flatMap(([, rows]) => rows);
  const keys = (event: KeyboardEvent<HTMLElement>) => {
    const { selection, select } = useSession.getState();
    const now = order.findIndex((f) => f.id === selection[0]);
    const by = event.key === "ArrowDown" ? 1 : event.key === "ArrowUp" ? -1 : 0;
    const next = order[Math.max(0, Math.min(order.length - 1, now + by))];
    if (by && next) {
      event.preventDefault();
      event.stopPropagation();
      select([next.id]);
      document.getElementById(`row-${next.id}`)?.focus();
    } else if (event.key === "Delete" && now >= 0) {
      event.preventDefault();
      event.stopPropagation();
      void send(selection.map(removeFunction));
      select([]);
    }
  };
  return (
    <section aria-label="Functions" className="flex min-h-0 flex-col border-r border-rule bg-sheet">
      <div className="flex items-end justify-between px-3.5 pt-3 pb-1">
        <h2 className="text-[13px]">
          What the panel must do{" "}
          <span className="font-normal text-faint">{many(view.design.functions.length, "function")}</span>
        </h2>
        <span className="grid w-[172px] grid-cols-4 text-center text-[11px] text-faint" aria-hidden="true">
          {STAGES.map(([, word]) => (
            <span key={word}>{word}</span>
          ))}
        </span>
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto pb-2" onKeyDown={keys}>
        {groups.map(([group, rows]) => (
          <section key={group} aria-label={group || "Without a group"}>
            <h3 className="flex items-center gap-2 px-3.5 pt-3 pb-1 text-[12px] text-faint">
              {group || "Without a group"}
              <span className="h-px flex-1 bg-rule" />
            </h3>
            <ul>
              {rows.map((fn) => (
                <ThreadRow key={fn.id} fn={fn} view={view} />
              ))}
            </ul>
          </section>
        ))}
        {view.design.functions.length === 0 && (
          <p className="px-3.5 py-4 text-faint">
            Nothing listed yet. Type the first thing the panel must do below.
          </p>
        )}
      </div>
      <AddLine />
    </section>
  );
}

function grouped(functions: readonly Fn[]): [string, Fn[]][] {
  const groups = new Map<string, Fn[]>();
  for (const fn of functions) groups.set(fn.group, [...(groups.get(fn.group) ?? []), fn]);
  return [...groups];
}

function ThreadRow({ fn, view }: { fn: Fn; view: DesignView }) {
  const selected = useSession((s) => s.selection.includes(fn.id));
  const hot = useSession((s) => s.hot.includes(fn.id));
  const select = useSession((s) => s.select);
  const thread = view.threads[fn.id];
  const reached = STAGES.map(([key]) => thread?.[key] ?? false);
  const words = STAGES.filter((_, n) => reached[n]).map(([, word]) => word);
  const part = view.design.parts.find((p) => p.id === fn.part);
  return (
    <li>
      <button
        id={`row-${fn.id}`}
        type="button"
        aria-pressed={selected}
        className={`flex h-[30px] w-full items-center justify-between gap-3 px-3.5 text-left outline-offset-[-2px] hover:bg-warm ${selected || hot ? "bg-wash!" : ""}`}
        onClick={() => select([fn.id])}
      >
        <span className="min-w-0 truncate">
          {fn.name} <span className="pl-1.5 text-[12px] text-faint">{fn.want || part?.name || ""}</span>
        </span>
        <span className="sr-only">{words.length ? `has ${words.join(", ")}` : "nothing chosen yet"}</span>
        <Thread reached={reached} />
      </button>
    </li>
  );
}

function Thread({ reached }: { reached: readonly boolean[] }) {
  const at = (n: number) => 21.5 + n * 43;
  return (
    <svg width="172" height="12" viewBox="0 0 172 12" aria-hidden="true" className="shrink-0">
      <path d={`M${at(0)} 6H${at(3)}`} stroke="var(--rule)" />
      {reached.map((yes, n) => (
        <g key={n}>
          {yes && n > 0 && reached[n - 1] && (
            <path d={`M${at(n - 1)} 6H${at(n)}`} stroke="var(--petrol)" strokeWidth="1.5" />
          )}
          <circle
            cx={at(n)}
            cy="6"
            r="3.8"
            fill={yes ? "var(--petrol)" : "var(--sheet)"}
            stroke={yes ? "var(--petrol)" : "var(--faint)"}
          />
        </g>
      ))}
    </svg>
  );
}

/** One line, one function; the group is that of the selected one. */
function AddLine() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const pressed = (event: globalThis.KeyboardEvent) => {
      const inField =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (event.key !== "n" || inField || event.ctrlKey || event.metaKey || useSession.getState().dialog)
        return;
      event.preventDefault();
      field.current?.focus();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, []);
  const add = async () => {
    const name = text.trim();
    if (!name) return;
    const { selection, select } = useSession.getState();
    const group = view.design.functions.find((f) => f.id === selection[0])?.group ?? "";
    const kept = await send([addFunction(name, group)]);
    if (!kept) return;
    setText("");
    const made = kept.design.functions.at(-1);
    if (made) select([made.id]);
  };
  return (
    <div className="border-t border-rule p-3.5">
      <label className="relative block">
        <span className="sr-only">New function</span>
        <input
          ref={field}
          className="h-8 w-full rounded border border-rule bg-sheet px-2.5 pr-20 placeholder:text-faint"
          placeholder="Type a function, such as gong push button"
          value={text}
          maxLength={120}
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === "Enter") void add();
            if (event.key === "Escape") event.currentTarget.blur();
          }}
        />
        <span className="num absolute top-2 right-3 text-faint">{text ? "Enter adds" : "N"}</span>
      </label>
    </div>
  );
}
