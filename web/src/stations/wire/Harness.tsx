/** The harness: each module's loom from behind with its plugs; wire and colours; where things outside stand. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { HarnessView, WireView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { LoomDrawing } from "./LoomDrawing";
import { LoomFields } from "./LoomFields";
import { Outside } from "./Outside";
import { PlugDrawing } from "./PlugDrawing";
import { WireStock } from "./WireStock";

const WIRE = "~wire";
const OUTSIDE = "~outside";

export function Harness({ wire }: { wire: WireView }) {
  const { id, revision } = useDesign();
  const { module: wanted, set } = useSession();
  const [apart, setApart] = useState<string | null>(null);
  const found = useQuery({
    queryKey: ["harness", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire/harness", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!found.data) return <NotThere query={found} words="Laying the looms…" />;
  const { looms, plugs, metres, joints, sleeves, ties, guessed } = found.data as HarnessView;
  if (looms.length === 0)
    return (
      <p className="p-6 text-faint">
        No wires yet: place parts at Face and add a controller. Looms, plugs and lengths follow from where
        things are.
      </p>
    );
  const now = apart ?? (looms.some((l) => l.module === wanted) ? wanted : null) ?? looms[0]?.module ?? WIRE;
  const loom = looms.find((l) => l.module === now);
  const behind = wire.modules.find((m) => m.id === now);
  const tabs = [
    ...looms.map((l) => [l.module, l.name] as const),
    [WIRE, "Wire and colours"] as const,
    [OUTSIDE, "Outside the modules"] as const,
  ];
  return (
    <div className="flex h-full min-h-0 flex-col max-[900px]:h-auto">
      <div className="flex shrink-0 flex-wrap items-end justify-between gap-x-4 border-b border-rule bg-card">
        <Tabs
          label="Looms"
          tabs={tabs}
          now={now}
          onChange={(tab) => {
            const own = tab === WIRE || tab === OUTSIDE;
            setApart(own ? tab : null);
            if (!own) set({ module: tab });
          }}
        />
        <p className="px-4 pb-1.5 text-[12px] text-faint">
          <span className="num">{metres.toFixed(1)} m</span> of wire, {many(plugs.length, "plug")},{" "}
          {many(joints, "joint")}, {many(sleeves, "sleeve")}, {many(ties, "tie")}
          {guessed > 0 && (
            <>
              ;{" "}
              <button type="button" className="text-judge underline" onClick={() => setApart(OUTSIDE)}>
                {many(guessed, "length")} guessed
              </button>
            </>
          )}
        </p>
      </div>
      {now === WIRE && <WireStock harness={found.data as HarnessView} />}
      {now === OUTSIDE && <Outside harness={found.data as HarnessView} />}
      {loom && behind && (
        <div className="flex min-h-0 flex-1 max-[900px]:flex-col">
          <LoomDrawing key={loom.module} loom={loom} behind={behind} />
          <aside
            aria-label={`Loom and plugs of ${loom.name}`}
            className="w-[23rem] shrink-0 space-y-4 overflow-y-auto border-l border-rule bg-sheet px-4 py-3 text-[12px] max-[900px]:w-auto max-[900px]:border-t max-[900px]:border-l-0"
          >
            <LoomFields loom={loom} />
            {plugs
              .filter((plug) => plug.module === loom.module)
              .map((plug) => (
                <PlugDrawing key={plug.id} plug={plug} />
              ))}
          </aside>
        </div>
      )}
    </div>
  );
}
