/** Over the function list: what of it is shown, and lists brought in and taken out. */
import { useRef } from "react";
import { useDesign } from "../../app/design";
import { useCommands } from "../../app/registry";

interface Props {
  filter: string;
  onFilter: (text: string) => void;
  shown: number;
  onPaste: () => void;
}

export function ListTools({ filter, onFilter, shown, onPaste }: Props) {
  const view = useDesign();
  const field = useRef<HTMLInputElement>(null);
  useCommands({ "brief.filter": () => field.current?.focus() });
  return (
    <div className="flex flex-wrap items-center gap-2 px-3.5 pb-1 text-[12px]">
      <input
        ref={field}
        aria-label="Filter functions"
        placeholder="Filter…  F"
        className="h-7 w-32 rounded border border-faint bg-sheet px-2 placeholder:text-faint"
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
        Paste or import
      </button>
      <a
        className="rounded px-1.5 py-0.5 text-petrol underline"
        href={`/api/designs/${view.id}/brief/list.csv`}
        download
      >
        Export
      </a>
    </div>
  );
}
