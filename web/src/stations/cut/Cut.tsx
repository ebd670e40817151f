/** Cut: each sheet with its operations, the files, and what was left unsettled. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
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
  if (!cut.data) return <NotThere query={cut} words="Drawing the sheets…" />;
  const module = cut.data.modules.find((p) => p.id === wanted) ?? cut.data.modules[0];
  if (!module) return <p className="p-6 text-faint">There is no module to cut yet. Add one at Brief.</p>;
  const sheet = module.sheets.find((s) => s.id === layer) ?? module.sheets[0];
  const flip = (operation: string) => {
    const next = new Set(hidden);
    if (!next.delete(operation)) next.add(operation);
    setHidden(next);
  };
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_300px] max-[900px]:grid-cols-1 max-[900px]:grid-rows-[minmax(320px,100%)_auto] max-[900px]:overflow-y-auto">
      <section aria-label="Sheet" className="flex min-w-0 flex-col">
        <div className="flex min-h-9 flex-wrap items-end gap-x-6 px-4 text-[12px]">
          <Tabs
            label="Modules"
            tabs={cut.data.modules.map((m) => [m.id, m.name] as const)}
            now={module.id}
            onChange={(next) => set({ module: next })}
            className="px-0!"
          />
          <Tabs
            label="Layers"
            tabs={module.sheets.map(
              (s) => [s.id, s.id === "film" ? "Film" : `${layerName(s.title)} ${s.thickness} mm`] as const,
            )}
            now={sheet?.id ?? ""}
            onChange={setLayer}
            className="px-0!"
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
