/** Parts: the drawer at one common scale, and the sheet of the part that is picked. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { PartSheet } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { type Filter, Filters, meets, NO_FILTER } from "./Filters";
import { Sheet } from "./Sheet";
import { Shelves } from "./Shelves";

const FAMILIES: readonly (readonly [string, string, readonly string[]])[] = [
  ["all", "All", []],
  ["used", "Used here", []],
  ["toggles", "Toggles", ["toggle", "rocker"]],
  ["buttons", "Buttons", ["button", "emergency", "key"]],
  ["rotary", "Turned", ["rotary", "encoder", "pot", "slider", "thumbwheel", "joystick"]],
  ["breakers", "Breakers", ["breaker"]],
  ["lamps", "Lamps", ["lamp", "caption"]],
  ["readouts", "Displays", ["readout", "display", "gauge"]],
  [
    "plugs",
    "Openings",
    ["sounder", "connector", "vent", "speaker", "blank", "placard", "fixing", "device", "other"],
  ],
  ["mine", "Mine", []],
];

const inFamily = (sheet: PartSheet, family: string): boolean => {
  if (family === "used") return sheet.used_by.length > 0;
  if (family === "mine") return sheet.own;
  const wanted = FAMILIES.find(([key]) => key === family)?.[2] ?? [];
  return wanted.length === 0 || wanted.includes(sheet.part.family);
};

export default function Parts() {
  const { id, revision, design } = useDesign();
  const selection = useSession((s) => s.selection);
  const [family, setFamily] = useState("all");
  const [filter, setFilter] = useState<Filter>(NO_FILTER);
  const [picked, setPicked] = useState<string | null>(null);
  const drawer = useQuery({
    queryKey: ["drawer", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/parts", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!drawer.data) return <NotThere query={drawer} words="Opening the drawer…" />;
  const { sheets } = drawer.data;
  const shown = sheets.filter((s) => inFamily(s, family) && meets(s, filter));
  const chosen = design.functions.find((f) => f.id === selection[0]);
  const sheet = sheets.find((s) => s.part.id === (picked ?? chosen?.part)) ?? shown[0] ?? sheets[0];
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_minmax(400px,450px)]">
      <section aria-label="Drawer" className="flex min-h-0 flex-col">
        <Tabs
          label="Families"
          tabs={FAMILIES.map(([key, words]) => [key, words] as const)}
          now={family}
          onChange={setFamily}
          className="h-auto! min-h-9 flex-wrap gap-x-3! gap-y-1 pt-2"
        />
        <Filters filter={filter} onChange={setFilter} shown={shown.length} />
        <div className="min-h-0 flex-1 overflow-y-auto p-4 pt-2">
          <Shelves sheets={shown} picked={sheet?.part.id ?? ""} onPick={setPicked} />
        </div>
        <p className="border-t border-rule px-4 py-2 text-[12px]">
          <a className="text-petrol underline" href={`/api/designs/${id}/parts/shopping.csv`} download>
            Shopping list as CSV
          </a>
        </p>
      </section>
      <section aria-label="Part" className="overflow-y-auto border-l border-rule bg-sheet">
        {sheet && (
          <Sheet key={sheet.part.id} sheet={sheet} drawer={drawer.data} chosen={chosen} onPick={setPicked} />
        )}
      </section>
    </div>
  );
}
