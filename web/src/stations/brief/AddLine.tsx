/** One line, one function, read by the core; several lines at once open the sheet for lists. */
import { useRef, useState } from "react";
import { useChanges, useDesign } from "../../app/design";
import { read, type Refusal, useQueue } from "../../app/queue";
import { useCommands } from "../../app/registry";
import { selectsLater, useSession } from "../../app/session";
import { many } from "../../ui/figures";

export function AddLine({ onPasted }: { onPasted: (text: string) => void }) {
  const view = useDesign();
  const { wish } = useChanges(view.id);
  const [text, setText] = useState("");
  const field = useRef<HTMLInputElement>(null);
  const waiting = useQueue(
    (s) => s.waiting.filter((one) => one.kept === null && one.ask.to === "wish").length,
  );
  useCommands({ "brief.add": () => field.current?.focus() });
  /** The line is taken at once, so that the next can be typed; one that is refused comes back below. */
  const add = () => {
    if (!text.trim()) return;
    const { selection } = useSession.getState();
    const select = selectsLater();
    const group =
      view.design.functions.find((f) => f.id === selection[0])?.group ??
      view.design.functions.at(-1)?.group ??
      "";
    setText("");
    void wish(text.trim(), group).then((kept) => {
      const made = kept?.design.functions.at(-1);
      if (made) select([made.id]);
    });
  };
  return (
    <div className="border-t border-rule p-3.5">
      <Refused
        onAgain={(line) => {
          setText(line);
          field.current?.focus();
        }}
      />
      <label className="relative block">
        <span className="sr-only">New function</span>
        <input
          ref={field}
          className="h-8 w-full rounded border border-faint bg-sheet px-2.5 placeholder:text-faint data-busy:pr-24"
          data-busy={text !== "" || waiting > 0 ? "" : undefined}
          autoFocus={view.design.functions.length === 0}
          placeholder="Type “gong push button”, or paste a list"
          value={text}
          maxLength={200}
          onChange={(event) => setText(event.target.value)}
          onPaste={(event) => {
            const list = event.clipboardData.getData("text");
            if (!/[\n\t]/.test(list.trim())) return;
            event.preventDefault();
            onPasted(list);
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter") add();
            if (event.key === "Escape") event.currentTarget.blur();
          }}
        />
        <span className="num absolute top-2 right-3 text-faint">
          {waiting ? `${many(waiting, "line")} on the way` : text ? "Enter adds" : "N"}
        </span>
      </label>
    </div>
  );
}

/** Lines that were refused, each with why, to be mended. */
function Refused({ onAgain }: { onAgain: (line: string) => void }) {
  const { id } = useDesign();
  const refused = useQueue((s) => s.refused);
  const mine = refused.filter((r): r is Refusal => r.waiting.design === id && r.waiting.ask.to === "wish");
  if (mine.length === 0) return null;
  return (
    <ul role="alert" className="mb-2 max-h-24 overflow-y-auto text-[12px] text-must">
      {mine.map(({ waiting: { key, ask }, why }) => (
        <li key={key} className="flex items-baseline gap-2">
          <span className="min-w-0 flex-1">
            {ask.to === "wish" && <b>{ask.text}</b>}: {why}
          </span>
          <button
            type="button"
            className="underline"
            onClick={() => {
              read(key);
              if (ask.to === "wish") onAgain(ask.text);
            }}
          >
            Change it
          </button>
          <button type="button" className="underline" onClick={() => read(key)}>
            Dismiss
          </button>
        </li>
      ))}
    </ul>
  );
}
