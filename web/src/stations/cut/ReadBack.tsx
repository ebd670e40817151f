/** Every program read back, one sheet after the other: what would be cut wrongly is listed with where it is. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import type { SheetPlan, SheetsView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { Mark } from "../../ui/Mark";
import { useCut } from "./store";
import { planQuery } from "./useSheets";

export function ReadBack({ sheets }: { sheets: SheetsView }) {
  const { id } = useDesign();
  const client = useQueryClient();
  const set = useCut((s) => s.set);
  const [plans, setPlans] = useState<SheetPlan[]>([]);
  const [of, setOf] = useState<number | null>(null);
  const stopped = useRef(false);
  useEffect(
    () => () => {
      stopped.current = true;
    },
    [],
  );
  const read = async () => {
    stopped.current = false;
    setOf(sheets.revision);
    setPlans([]);
    for (const sheet of sheets.sheets) {
      if (stopped.current) return;
      const plan = await client.fetchQuery(planQuery(id, sheet, sheets.revision));
      setPlans((before) => [...before, plan]);
    }
  };
  const now = of === sheets.revision; // what was read of an older revision says nothing of this one
  const faults = now ? plans.flatMap((p) => p.faults.map((fault) => ({ fault, sheet: p.id }))) : [];
  const all = sheets.sheets.length;
  if (all === 0) return null;
  return (
    <section aria-label="Programs read back" className="border-t border-rule px-3.5 py-2.5 text-[12px]">
      {!now && <Button onClick={() => void read()}>Read all {all} programs back</Button>}
      {now && plans.length < all && (
        <p role="status" className="flex items-center justify-between gap-2">
          <span>
            Reading back, <span className="num">{plans.length}</span> of <span className="num">{all}</span>
          </span>
          <Button
            onClick={() => {
              stopped.current = true;
              setOf(null);
            }}
          >
            Stop
          </Button>
        </p>
      )}
      {now && plans.length === all && faults.length === 0 && (
        <p className="flex items-start gap-2 text-ok">
          <Mark kind="settled" className="mt-1" />
          {many(all, "program")} read back: nothing cut that must stay, nothing left that must go.
        </p>
      )}
      <ul className="space-y-1">
        {faults.map(({ fault, sheet }, n) => (
          <li key={n} className="grid grid-cols-[16px_1fr]">
            <Mark kind="must" className="mt-1" />
            <button
              type="button"
              className="text-left hover:underline"
              onClick={() => set({ sheet, view: "bed" })}
            >
              {sheets.pieces.find((p) => p.id === fault.piece)?.name ?? "The sheet"}: {fault.what}
              <span className="num">
                {fault.by > 0 && `, ${shown(fault.by, 2)} mm`} at {shown(fault.x)}, {shown(fault.y)}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
