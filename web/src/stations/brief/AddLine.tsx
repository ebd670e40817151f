/** One line, one function, read by the core; several lines at once open the sheet for lists. */
import { useRef, useState } from "react";
import { answered, api } from "../../api/client";
import { useChanges, useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";

export function AddLine({ onPasted }: { onPasted: (text: string) => void }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [text, setText] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  const field = useRef<HTMLInputElement>(null);
  useCommands({ "brief.add": () => field.current?.focus() });
  const add = async () => {
    if (!text.trim()) return;
    const { selection, select } = useSession.getState();
    const group = view.design.functions.find((f) => f.id === selection[0])?.group ?? "";
    try {
      const path = { design_id: view.id };
      const listing = await answered(
        api.POST("/api/designs/{design_id}/brief/read-list", {
          params: { path },
          body: { text: `name\n${text}` },
        }),
      );
      const [row] = listing.rows;
      if (!row) return setWrong(listing.faults[0]?.reason ?? "That is not understood");
      const kept = await send([{ ...row, group }]);
      if (!kept) return;
      setText("");
      setWrong(null);
      const made = kept.design.functions.at(-1);
      if (made) select([made.id]);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That is not understood");
    }
  };
  return (
    <div className="border-t border-rule p-3.5">
      <label className="relative block">
        <span className="sr-only">New function</span>
        <input
          ref={field}
          className="h-8 w-full rounded border border-rule bg-sheet px-2.5 pr-20 placeholder:text-faint"
          placeholder="Type a function: “gong push button”, or paste a list"
          value={text}
          maxLength={120}
          aria-invalid={wrong !== null}
          onChange={(event) => setText(event.target.value)}
          onPaste={(event) => {
            const list = event.clipboardData.getData("text");
            if (!/[\n\t]/.test(list.trim())) return;
            event.preventDefault();
            onPasted(list);
          }}
          onKeyDown={(event) => {
            if (event.key === "Enter") void add();
            if (event.key === "Escape") event.currentTarget.blur();
          }}
        />
        <span className="num absolute top-2 right-3 text-faint">{text ? "Enter adds" : "N"}</span>
      </label>
      {wrong && (
        <p role="alert" className="mt-1 text-[12px] text-must">
          {wrong}
        </p>
      )}
    </div>
  );
}
