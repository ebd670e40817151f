/** Wire: signals on the left, real pins on the right, wires between; or the same as a list to solder from. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { Solved } from "../../api/types";
import { remember, useChanges, useDesign } from "../../app/design";
import { useQueryClient } from "@tanstack/react-query";
import { Button } from "../../ui/Button";
import { many } from "../../ui/figures";
import { Loom } from "./Loom";
import { PinList } from "./PinList";
import { Verdict } from "./Verdict";

export default function Wire() {
  const view = useDesign();
  const client = useQueryClient();
  const { send, change } = useChanges(view.id);
  const [shows, setShows] = useState<"wires" | "list">("wires");
  const [solved, setSolved] = useState<Solved | null>(null);
  const [busy, setBusy] = useState(false);
  const wire = useQuery({
    queryKey: ["wire", view.id, view.revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire", { params: { path: { design_id: view.id } } })),
    placeholderData: (before) => before,
  });
  const solve = async (afresh: boolean) => {
    setBusy(true);
    await change(async (base) => {
      const path = { design_id: view.id };
      const result = await answered(
        api.POST("/api/designs/{design_id}/wire/solve", { params: { path }, body: { base, afresh } }),
      );
      setSolved(result);
      return remember(client, result.view);
    });
    setBusy(false);
  };
  if (!wire.data) return <p className="p-4 text-faint">Laying out the wires…</p>;
  const bare = wire.data.rows.filter((row) => !row.pin).length;
  const download = `/api/designs/${view.id}/wire/pins`;
  return (
    <div className="flex h-full flex-col">
      <div className="flex h-11 shrink-0 items-center gap-2 border-b border-rule bg-card px-4 text-[12px]">
        <span className="mr-2">
          {many(wire.data.rows.length, "signal")},{" "}
          <span className={bare ? "font-semibold text-look" : "text-ok"}>
            {bare ? `${bare} without a pin` : "every one has a pin"}
          </span>
        </span>
        <Button look="solid" disabled={busy} onClick={() => void solve(false)}>
          {busy ? "Solving…" : "Solve the rest"}
        </Button>
        <Button
          disabled={busy}
          onClick={() => void solve(true)}
          title="Give up solved pins; those set by hand stay"
        >
          Solve afresh
        </Button>
        <Button onClick={() => void send([{ do: "add_controller", board: "uno", name: "" }])}>
          Add an Uno
        </Button>
        <Button onClick={() => void send([{ do: "add_controller", board: "mega", name: "" }])}>
          Add a Mega
        </Button>
        <span className="flex-1" />
        <Button
          look="quiet"
          aria-pressed={shows === "list"}
          onClick={() => setShows(shows === "list" ? "wires" : "list")}
        >
          {shows === "list" ? "Show the wires" : "Show the pin list"}
        </Button>
        <a className="text-petrol underline" href={`${download}.csv`} download>
          CSV
        </a>
        <a className="text-petrol underline" href={`${download}.json`} download>
          JSON
        </a>
      </div>
      {solved && (
        <Verdict
          solved={solved}
          onAdd={(commands) => void send(commands).then(() => solve(false))}
          onClose={() => setSolved(null)}
        />
      )}
      <div className="min-h-0 flex-1 overflow-auto">
        {shows === "list" ? <PinList wire={wire.data} /> : <Loom wire={wire.data} />}
      </div>
    </div>
  );
}
