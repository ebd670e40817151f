/** What is commonly forgotten for this kind of panel: looked at one by one in the worklist. */
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";

export function Forgotten() {
  const { findings } = useDesign();
  const set = useSession((s) => s.set);
  const all = findings.filter((f) => f.code === "brief.forgotten");
  const open = all.filter((f) => f.accepted == null);
  if (all.length === 0) return null;
  const dismissed = all.length - open.length;
  return (
    <div className="mx-3.5 mb-2 flex items-center gap-3 rounded border border-dashed border-judge bg-warm px-3 py-2 text-[12px]/[16px]">
      <b className="shrink-0 text-judge">Often forgotten</b>
      <span className="line-clamp-2 min-w-0 flex-1">
        {open.map((f) => f.title).join(" · ")}
        {dismissed > 0 && (
          <span className="text-faint">
            {open.length > 0 && " · "}
            {dismissed} not needed
          </span>
        )}
      </span>
      <Button
        onClick={() => set({ worklist: true, scope: "station", focus: (open[0] ?? all[0])?.id ?? null })}
      >
        Look
      </Button>
    </div>
  );
}
