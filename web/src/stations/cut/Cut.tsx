/** Cut: each sheet with its operations, the files, and what was left unsettled. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";

import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Files } from "./Files";
import { SheetDrawing } from "./SheetDrawing";

export default function Cut() {
  const { id, revision } = useDesign();
  const wanted = useSession((s) => s.module);
  const set = useSession((s) => s.set);
  const [layer, setLayer] = useState("face");
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  const cut = useQuery({
    queryKey: ["cut", id, revision],
    queryFn: () => answered(api.GET("/api/designs/{design_id}/cut", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (cut.isError) return <p className="p-4 text-must">{cut.error.message}</p>;
  if (!cut.data) return <p className="p-4 text-faint">Drawing the sheets…</p>;
  const module = cut.data.modules.find((p) => p.id === wanted) ?? cut.data.modules[0];
  if (!module) return <p className="p-6 text-faint">There is no module to cut yet. Add one at Brief.</p>;
  const sheet = module.sheets.find((s) => s.id === layer) ?? module.sheets[0];
  const flip = (operation: string) => {
    const next = new Set(hidden);
    if (!next.delete(operation)) next.add(operation);
    setHidden(next);
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_300px]">
      <section aria-label="Sheet" className="flex min-w-0 flex-col">
        <div className="flex h-9 items-end gap-6 px-4 text-[12px]">
          <Tabs
            label="Modules"
            items={cut.data.modules}
            chosen={module.id}
            onChoose={(p) => set({ module: p })}
          />
          <Tabs
            label="Layers"
            items={module.sheets.map((s) => ({
              id: s.id,
              name: s.id === "film" ? "Film" : `${layerName(s.title)} ${s.thickness} mm`,
            }))}
            chosen={sheet?.id ?? ""}
            onChoose={setLayer}
          />
        </div>
        {sheet && (
          <SheetDrawing key={module.id} module={module} sheet={sheet} hidden={hidden} onFlip={flip} />
        )}
      </section>
      <Files cut={cut.data} module={module} />
    </div>
  );
}

const layerName = (title: string): string => title.slice(title.lastIndexOf(":") + 2);

interface TabsProps {
  label: string;
  items: readonly { id: string; name: string }[];
  chosen: string;
  onChoose: (id: string) => void;
}

function Tabs({ label, items, chosen, onChoose }: TabsProps) {
  return (
    <div role="tablist" aria-label={label} className="flex min-w-0 gap-3.5">
      {items.map((item) => (
        <button
          key={item.id}
          type="button"
          role="tab"
          aria-selected={item.id === chosen}
          className={`max-w-36 truncate border-b-2 pb-0.5 ${item.id === chosen ? "border-petrol font-semibold" : "border-transparent text-faint hover:text-ink"}`}
          onClick={() => onChoose(item.id)}
        >
          {item.name}
        </button>
      ))}
    </div>
  );
}
