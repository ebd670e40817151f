/** Parts: the drawer at one common scale, and the sheet of the part that is picked. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import { choosePart, editFunction } from "../../api/commands";
import type { Fn, PartSheet } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { selectsLater, useSession } from "../../app/session";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { many } from "../../ui/figures";
import { FunctionList } from "./FunctionList";
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
  const [picked, setPicked] = useState<{ of: string; part: string } | null>(null);
  const { send, settled } = useChanges(id);
  const set = useSession((s) => s.set);
  const drawer = useQuery({
    queryKey: ["drawer", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/parts", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!drawer.data) return <NotThere query={drawer} words="Opening the drawer…" />;
  const { sheets } = drawer.data;
  const shown = sheets.filter((s) => inFamily(s, family) && meets(s, filter));
  const chosen = design.functions.filter((f) => selection.includes(f.id));
  const [first] = chosen;
  const wanted = picked && picked.of === (first?.id ?? "") ? picked.part : (first?.part ?? picked?.part);
  const sheet = sheets.find((s) => s.part.id === wanted) ?? shown[0] ?? sheets[0];
  const pick = (part: string) => setPicked({ of: first?.id ?? "", part });
  const giveBest = async (functions: Fn[]) => {
    const ids = functions.map((f) => f.id);
    const select = selectsLater();
    try {
      await settled(); // functions that are only on their way have no parts yet
      const found = await answered(
        api.POST("/api/designs/{design_id}/parts/best", {
          params: { path: { design_id: id } },
          body: { functions: ids },
        }),
      );
      const commands = found.flatMap((best) =>
        best.part === null
          ? []
          : [
              choosePart(best.function, best.part),
              ...(best.scheme === "ladder" ? [editFunction(best.function, { scheme: "ladder" })] : []),
            ],
      );
      const left = found.filter((best) => best.part === null);
      if (commands.length) await send(commands);
      const names = left.map((l) => functions.find((f) => f.id === l.function)?.name).slice(0, 3);
      if (left.length)
        set({
          notice: `${many(left.length, "function")} got no part: ${names.join(", ")}${left.length > 3 ? " …" : ""}. ${left[0]?.why ?? ""}`,
        });
      select(left.slice(0, 1).map((l) => l.function));
    } catch (error) {
      set({ notice: error instanceof Error ? error.message : "That did not work" });
    }
  };
  return (
    <div className="grid h-full grid-cols-[156px_minmax(0,1fr)_minmax(340px,380px)] min-[1500px]:grid-cols-[220px_minmax(0,1fr)_450px] max-[1240px]:grid-cols-[minmax(0,1fr)_minmax(330px,400px)] max-[900px]:grid-cols-1 max-[900px]:grid-rows-[minmax(320px,100%)_auto] max-[900px]:overflow-y-auto">
      <FunctionList onBest={(functions) => void giveBest(functions)} />
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
          <Shelves sheets={shown} picked={sheet?.part.id ?? ""} onPick={pick} />
        </div>
        <p className="border-t border-rule px-4 py-2 text-[12px]">
          <a className="text-petrol underline" href={`/api/designs/${id}/parts/shopping.csv`} download>
            Shopping list as CSV
          </a>
        </p>
      </section>
      <section aria-label="Part" className="overflow-y-auto border-l border-rule bg-sheet">
        {sheet && (
          <Sheet
            key={sheet.part.id}
            sheet={sheet}
            drawer={drawer.data}
            chosen={chosen}
            onPick={pick}
            onBest={(functions) => void giveBest(functions)}
          />
        )}
      </section>
    </div>
  );
}
