/** Switch, begin, copy, import, export and rename designs. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation } from "wouter";
import { answered, api, Refused } from "../api/client";
import type { DesignLine, DesignView, Problem } from "../api/types";
import { Button } from "../ui/Button";
import { FileButton } from "../ui/FileButton";
import { TextField } from "../ui/fields";
import { Sheet } from "../ui/Sheet";
import { TakeAway } from "../ui/TakeAway";
import { useChanges, useDesign } from "./design";
import { remember } from "./queue";
import { ANEW, useSession } from "./session";
import type { Station } from "./stations";

export function Designs({ onClose, station }: { onClose: () => void; station: Station["id"] }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const designs = useQuery({
    queryKey: ["designs"],
    queryFn: () => answered(api.GET("/api/designs")),
    refetchOnMount: "always",
  });
  return (
    <Sheet title="Designs" open onClose={onClose}>
      <List designs={designs.data ?? []} station={station} onClose={onClose} />
      <div className="mt-4">
        <TextField
          label="Name of this design"
          value={view.design.name}
          needed
          onCommit={(name) => void send([{ do: "rename", name }])}
        />
      </div>
      <Bring onClose={onClose} station={station} />
    </Sheet>
  );
}

interface ListProps {
  designs: readonly DesignLine[];
  station: Station["id"];
  onClose: () => void;
}

/** Every design with what tells it from another of its name; removing one can be undone. */
function List({ designs, station, onClose }: ListProps) {
  const view = useDesign();
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const [removed, setRemoved] = useState<DesignLine | null>(null);
  const put = (left: DesignLine[]) => client.setQueryData(["designs"], left);
  const remove = async (design: DesignLine) => {
    const params = { path: { design_id: design.id } };
    const left = await answered(api.DELETE("/api/designs/{design_id}", { params }));
    put(left);
    setRemoved(design);
    if (design.id === view.id && left[0]) navigate(`/d/${left[0].id}/${station}`);
  };
  const restore = async (design: DesignLine) => {
    const params = { path: { design_id: design.id } };
    put(await answered(api.POST("/api/designs/{design_id}/restore", { params })));
    setRemoved(null);
  };
  return (
    <>
      <ul className="border-b border-rule">
        {designs.map((d) => (
          <li key={d.id} className="flex items-center border-t border-rule">
            <Link
              href={`/d/${d.id}/${station}`}
              className={`flex min-w-0 flex-1 items-baseline justify-between gap-4 px-2 py-1.5 hover:bg-wash ${d.id === view.id ? "bg-wash font-semibold" : ""}`}
              onClick={() => {
                useSession.getState().set(ANEW);
                onClose();
              }}
            >
              <span className="min-w-0">
                <span className="block truncate">{d.name}</span>
                <span className="num block truncate text-[11px] text-faint">{d.id}</span>
              </span>
              <span className="num shrink-0 text-faint">
                {new Date(d.kept_at).toLocaleString([], { dateStyle: "short", timeStyle: "short" })}, revision{" "}
                {d.revision}
              </span>
            </Link>
            {designs.length > 1 && <TakeAway what={d.name} onTake={() => void remove(d)} />}
          </li>
        ))}
      </ul>
      {removed && (
        <p role="status" className="mt-2 flex items-center gap-2 text-[12px]">
          “{removed.name}” was removed from the list.
          <Button onClick={() => void restore(removed)}>Bring it back</Button>
        </p>
      )}
    </>
  );
}

function Bring({ onClose, station }: { onClose: () => void; station: Station["id"] }) {
  const view = useDesign();
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const [problem, setProblem] = useState<Problem | null>(null);
  const { settled } = useChanges(view.id);
  const opened = (made: DesignView) => {
    remember(client, made);
    useSession.getState().set(ANEW);
    onClose();
    navigate(`/d/${made.id}/${station}`);
  };
  const attempt = async (work: Promise<DesignView>) => {
    try {
      opened(await work);
    } catch (error) {
      if (error instanceof Refused) setProblem(error.problem);
      else useSession.getState().set({ notice: "The server does not answer; try again when it is back" });
    }
  };
  const take = async (chosen: File) => {
    const text = await chosen.text();
    await attempt(
      answered(
        api.POST("/api/designs/import", {
          body: text as never,
          bodySerializer: (body: unknown) => body as string,
        }),
      ),
    );
  };
  const path = { design_id: view.id };
  return (
    <>
      <div className="mt-4 flex flex-wrap gap-2">
        <Button look="solid" onClick={() => navigate("/new")}>
          New panel…
        </Button>
        <Button
          onClick={() =>
            void attempt(
              settled().then(() => answered(api.POST("/api/designs/{design_id}/copy", { params: { path } }))),
            )
          }
        >
          Duplicate
        </Button>
        <FileButton
          label="Design file to import"
          accept=".json,application/json"
          onFile={(chosen) => void take(chosen)}
        >
          Import a file…
        </FileButton>
        <a
          className="inline-flex min-h-[26px] items-center rounded border border-ink bg-sheet px-2 text-[12px] hover:bg-wash"
          href={`/api/designs/${view.id}/export`}
          download
        >
          Export
        </a>
      </div>
      {problem && <Refusal problem={problem} />}
    </>
  );
}

function Refusal({ problem }: { problem: Problem }) {
  return (
    <div role="alert" className="mt-3 border-l-[3px] border-must pl-3">
      <p className="font-semibold text-must">{problem.title}</p>
      <p>{problem.detail}</p>
      <ul className="mt-1 text-[12px] text-faint">
        {problem.errors?.slice(1, 8).map((fault) => (
          <li key={fault.path + fault.message}>
            <span className="num">{fault.path}</span> {fault.message}
          </li>
        ))}
      </ul>
    </div>
  );
}
