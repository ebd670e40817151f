/** Wire: the module from behind, a board beside it, lines between; or the same as a list to solder from. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { DesignView, Solved, WireView } from "../../api/types";
import { AddController } from "../../app/AddController";
import { useChanges, useDesign } from "../../app/design";
import { designKey } from "../../app/queue";
import { useJob } from "../../app/useJob";
import { useCommands } from "../../app/registry";
import { Button } from "../../ui/Button";
import { Progress } from "../../ui/Progress";
import { many } from "../../ui/figures";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { Harness } from "./Harness";
import { Loom } from "./Loom";
import { PinList } from "./PinList";
import { Power } from "./Power";
import { Programs } from "./Programs";
import { Schemes } from "./Schemes";
import { Verdict } from "./Verdict";
import { WiringSheet } from "./WiringSheet";

const VIEWS = [
  ["wires", "Lines"],
  ["schemes", "Schemes"],
  ["power", "Power"],
  ["harness", "Harness"],
  ["list", "Pin list"],
  ["sheet", "Wiring sheet"],
  ["programs", "Programs"],
] as const;
type Shows = (typeof VIEWS)[number][0];

export default function Wire() {
  const view = useDesign();
  const client = useQueryClient();
  const { send, settled } = useChanges(view.id);
  const [shows, setShows] = useState<Shows>("wires");
  const [solved, setSolved] = useState<{ said: Solved; revision: number | undefined } | null>(null);
  const [sought, setSought] = useState("");
  const job = useJob();
  const busy = job.standing !== null;
  const wire = useQuery({
    queryKey: ["wire", view.id, view.revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire", { params: { path: { design_id: view.id } } })),
    placeholderData: (before) => before,
  });
  const solve = async (afresh: boolean) => {
    const path = { design_id: view.id };
    const base = (await settled())?.revision ?? 1;
    const body = { base, afresh, key: crypto.randomUUID() };
    const over = await job.run(() =>
      answered(api.POST("/api/designs/{design_id}/wire/solve", { params: { path }, body })),
    );
    if (!over) return;
    await client.refetchQueries({ queryKey: designKey(view.id) });
    const { revision } = client.getQueryData<DesignView>(designKey(view.id)) ?? {};
    setSolved(over.solved ? { said: over.solved, revision } : null);
  };
  const bare = wire.data?.rows.filter((row) => !row.pin).length ?? 0;
  const show = (next: Shows) => {
    setSought("");
    setShows(next);
  };
  const showWires = (words: string) => {
    setSought(words);
    setShows("sheet");
  };
  const flip = () =>
    show(VIEWS[(VIEWS.findIndex(([key]) => key === shows) + 1) % VIEWS.length]?.[0] ?? "wires");
  useCommands({
    "wire.list": flip,
    "wire.missing": busy || bare === 0 ? undefined : () => void solve(false),
  });
  if (!wire.data) return <NotThere query={wire} words="Laying out the wires…" />;
  const base = `/api/designs/${view.id}/wire`;
  return (
    <div className="flex h-full flex-col">
      <div className="flex min-h-11 shrink-0 flex-wrap items-center gap-x-2 gap-y-1 py-1 border-b border-rule bg-card px-4 text-[12px]">
        <span className="mr-2">
          {wire.data.rows.length === 0 ? (
            <span className="text-faint">No lines yet</span>
          ) : (
            <>
              {many(wire.data.rows.filter((row) => !row.via).length, "line")},{" "}
              <span className={bare ? "font-semibold text-judge" : "text-ok"}>
                {bare ? `${bare} without a pin` : "every one has a pin"}
              </span>
            </>
          )}
        </span>
        <Button look="solid" disabled={busy || bare === 0} onClick={() => void solve(false)}>
          Assign missing
        </Button>
        <Button
          disabled={busy}
          onClick={() => void solve(true)}
          title="Assigned pins are given up; those set by hand stay"
        >
          Reassign all
        </Button>
        <AddController design={view.id} />
        <span className="flex-1" />
        <Tabs label="What is shown" tabs={VIEWS} now={shows} onChange={show} className="h-8!" />
        {shows === "sheet" && (
          <>
            <Download href={`${base}/wiring-sheet.pdf`}>PDF</Download>
            <Download href={`${base}/wiring-sheet.csv`}>CSV</Download>
          </>
        )}
        {shows === "schemes" && <Download href={`${base}/strip-boards.pdf`}>Strip boards</Download>}
        {shows === "power" && (
          <>
            <Download href={`${base}/power.pdf`}>PDF</Download>
            <Download href={`${base}/power.svg`}>SVG</Download>
          </>
        )}
        {shows === "harness" && (
          <>
            <Download href={`${base}/looms.pdf`}>Looms</Download>
            <Download href={`${base}/looms.svg`}>as SVG</Download>
            <Download href={`${base}/plugs.pdf`}>Plugs</Download>
            <Download href={`${base}/labels.pdf`}>Labels</Download>
          </>
        )}
        {shows === "list" && (
          <>
            <Download href={`${base}/pins.csv`}>CSV</Download>
            <Download href={`${base}/pins.json`}>JSON</Download>
            <Download href={`${base}/boards.pdf`}>Boards</Download>
            <Download href={`${base}/pins.py`}>pins.py</Download>
            <Headers base={base} boards={wire.data.boards} />
          </>
        )}
      </div>
      {job.standing && (
        <Progress
          label="Solving the pins"
          done={job.standing.done}
          words={job.standing.words}
          onStop={job.stop}
        />
      )}
      {solved && (
        <Verdict
          solved={solved.said}
          passed={solved.revision !== view.revision}
          onAdd={(commands) => void send(commands).then(() => solve(false))}
          onClose={() => setSolved(null)}
        />
      )}
      <div className={`min-h-0 flex-1 ${shows === "list" ? "" : "max-[900px]:overflow-y-auto"}`}>
        {shows === "list" && <PinList wire={wire.data} />}
        {shows === "schemes" && <Schemes />}
        {shows === "power" && <Power />}
        {shows === "harness" && <Harness wire={wire.data} />}
        {shows === "sheet" && <WiringSheet first={sought} />}
        {shows === "programs" && <Programs />}
        {shows === "wires" && <Loom wire={wire.data} onTest={showWires} />}
      </div>
    </div>
  );
}

/** `pins.h` of each board, by its letter: names of many boards would push everything else away. */
function Headers({ base, boards }: { base: string; boards: WireView["boards"] }) {
  const [only] = boards;
  if (boards.length < 2) return only && <Download href={`${base}/pins.h?board=${only.id}`}>pins.h</Download>;
  return (
    <span className="inline-flex flex-wrap gap-x-1.5">
      pins.h of
      {boards.map((board, n) => (
        <Download key={board.id} href={`${base}/pins.h?board=${board.id}`} means={`pins.h, ${board.name}`}>
          {n < 26 ? String.fromCharCode(65 + n) : board.name}
        </Download>
      ))}
    </span>
  );
}

function Download({ href, children, means }: { href: string; children: string; means?: string }) {
  return (
    <a className="text-petrol underline" href={href} aria-label={means} title={means} download>
      {children}
    </a>
  );
}
