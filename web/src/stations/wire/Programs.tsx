/** The program of each board: what it reads and drives by name, how to load it, its files; what it takes. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { ProgramView } from "../../api/types";
import { useDesign } from "../../app/design";
import { OnBoard } from "./OnBoard";
import { NotThere } from "../../ui/NotThere";
import { useSession } from "../../app/session";
import { Tabs } from "../../ui/Tabs";
import { many } from "../../ui/figures";

const KINDS: Record<ProgramView["channels"][number]["kind"], string> = {
  pattern: "contacts",
  selector: "selector",
  binary: "selector, in binary",
  turn: "encoder",
  level: "voltage",
  ladder: "selector, over resistors",
  lamp: "lamp",
  dimmed: "lamp, dimmed",
  colour: "lamp of any colour",
  sound: "sounder",
  load: "load",
  text: "read-out",
  needle: "gauge",
};
const BY: Record<NonNullable<ProgramView["channels"][number]["by"]>, string> = {
  matrix: "matrix",
  "matrix-bare": "matrix",
  "shift-in": "chain",
  "shift-out": "chain",
  expander: "expander",
  digits: "chain",
  pixels: "chain",
};
const TABLES = "tables.h";

export function Programs() {
  const { id, revision } = useDesign();
  const [chosen, setChosen] = useState<string | null>(null);
  const [file, setFile] = useState(TABLES);
  const found = useQuery({
    queryKey: ["programs", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire/programs", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!found.data) return <NotThere query={found} words="Writing the programs…" />;
  const { programs, without } = found.data;
  const now = programs.find((one) => one.board === chosen) ?? programs[0];
  if (!now)
    return (
      <p className="p-6 text-faint">
        No board takes a program yet: add a controller above. A HID card has one of its own already.
      </p>
    );
  const unserved = [...now.unserved, ...without];
  const shown = now.files.find((one) => one.name === file) ?? now.files[0];
  return (
    <div className="flex h-full min-h-0 flex-col max-[900px]:h-auto">
      <div className="flex shrink-0 flex-wrap items-end justify-between gap-x-4 border-b border-rule bg-card">
        <Tabs
          label="Boards"
          tabs={programs.map((one) => [one.board, `${one.letter}: ${one.name}`] as const)}
          now={now.board}
          onChange={setChosen}
        />
        <Size key={now.board} board={now.board} />
      </div>
      <div className="flex min-h-0 flex-1 max-[900px]:flex-col">
        <aside
          aria-label={`What ${now.name} reads and drives`}
          className="w-[24rem] shrink-0 overflow-y-auto border-r border-rule bg-sheet px-4 py-3 text-[12px] max-[900px]:w-auto"
        >
          <p>
            <a
              className="inline-flex min-h-[26px] items-center rounded border border-ink bg-ink px-2.5 text-sheet"
              href={`/api/designs/${id}/wire/program.zip?board=${now.board}`}
              download
            >
              {now.folder}.zip
            </a>
          </p>
          <p className="mt-2 text-faint">
            Unpack the folder, open its <span className="num">.ino</span> with the usual tools for an{" "}
            {now.chip}, choose that board and its port, and write it. No library is wanted. It then says{" "}
            <span className="num">board 1 {now.letter} of …</span> at 115,200 baud, and takes the lines of{" "}
            <span className="num">docs/protocol.md</span>. Everything that one may want to change is in{" "}
            <span className="num">{TABLES}</span>, a line for each thing.
          </p>
          <OnBoard onTold={(board) => board && setChosen(board)} />
          {unserved.length > 0 && (
            <section aria-label="Not served" className="mt-3 border-l-[3px] border-judge pl-2.5">
              <h3 className="font-semibold text-judge">{many(unserved.length, "line")} not served</h3>
              <ul>
                {unserved.map((one, n) => (
                  <li key={n}>
                    {one.name}, {one.terminal}: {one.why}
                  </li>
                ))}
              </ul>
            </section>
          )}
          {now.channels.length === 0 && (
            <p className="mt-3">
              Nothing of this panel is on it: it only says who it is, and discovers what hangs on its pins.
            </p>
          )}
          <Channels title="Read" of={now.channels.filter((one) => one.reads)} />
          <Channels title="Driven" of={now.channels.filter((one) => !one.reads)} />
        </aside>
        <div className="flex min-h-0 min-w-0 flex-1 flex-col bg-sheet">
          <Tabs
            label="Files"
            tabs={now.files.map((one) => [one.name, one.name] as const)}
            now={shown?.name ?? ""}
            onChange={setFile}
          />
          <pre
            tabIndex={0}
            aria-label={shown?.name}
            className="num min-h-0 flex-1 overflow-auto whitespace-pre! border-t border-rule px-4 py-3 text-[11px]/[16px] max-[900px]:max-h-96"
          >
            {shown?.text}
          </pre>
        </div>
      </div>
    </div>
  );
}

function Channels({ title, of }: { title: string; of: readonly ProgramView["channels"][number][] }) {
  const { selection, select } = useSession();
  if (of.length === 0) return null;
  return (
    <section aria-label={title} className="mt-3">
      <h3 className="font-semibold">{title}</h3>
      <ul>
        {of.map((one) => (
          <li
            key={one.name}
            className={`border-t border-rule py-0.5 ${selection.includes(one.function) ? "bg-wash" : ""}`}
          >
            <button
              type="button"
              className="flex w-full items-baseline gap-2 text-left enabled:hover:underline"
              disabled={!one.function}
              onClick={() => select([one.function])}
              title={[...one.values, one.where].join(", ")}
            >
              <b className="num min-w-0 flex-1 truncate">{one.name}</b>
              <span className="shrink-0 text-faint">{KINDS[one.kind]}</span>
              <span className="num w-20 shrink-0 truncate text-right">
                {one.by ? BY[one.by] : one.pins.join(" ")}
              </span>
            </button>
            {(one.how || one.kind === "load" || one.kind === "sound") && (
              <p className="text-[11px] text-faint">
                {one.how || "off at power-up, and without a link until it is set again"}
              </p>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What the program takes, once the tools have compiled it. */
function Size({ board }: { board: string }) {
  const { id, revision } = useDesign();
  const found = useQuery({
    queryKey: ["program-size", id, revision, board],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/wire/program-size", {
          params: { path: { design_id: id }, query: { board } },
        }),
      ),
    placeholderData: (before) => before,
  });
  const size = found.data;
  return (
    <p role="status" className="px-4 pb-1.5 text-[12px] text-faint">
      {!size ? (
        "Compiling it…"
      ) : size.cannot ? (
        <span className="text-judge">Not compiled: {size.cannot}</span>
      ) : size.partly ? (
        <span>{size.partly}</span>
      ) : (
        <span className={size.over ? "font-semibold text-must" : ""}>
          <span className="num">{size.flash.toLocaleString("en")}</span> of{" "}
          <span className="num">{size.flash_of.toLocaleString("en")}</span> bytes of flash,{" "}
          <span className="num">{size.ram.toLocaleString("en")}</span> of{" "}
          <span className="num">{size.ram_of.toLocaleString("en")}</span> of RAM
          {size.over && `: ${size.over}`}
        </span>
      )}
    </p>
  );
}
