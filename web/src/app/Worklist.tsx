import { useEffect, useRef, useState } from "react";
import { useDesign } from "./design";
import { FindingRow } from "./FindingRow";
import { useSession } from "./session";
import type { Station } from "./stations";
import { inFocus, listed } from "./worklist";

/** The worklist folded away: a strip that brings it back, with how much is left. */
export function Folded() {
  const { readiness } = useDesign();
  const set = useSession((s) => s.set);
  const left = readiness.to_fix + readiness.to_judge;
  return (
    <button
      type="button"
      aria-label={`Show the worklist, ${left} left`}
      title="Show the worklist (W)"
      className="flex w-7 flex-col items-center gap-2 border-l border-rule bg-sheet pt-2.5 text-faint hover:bg-wash hover:text-ink"
      onClick={() => set({ worklist: true })}
    >
      ‹<span className="num text-[11px]">{left}</span>
    </button>
  );
}

/** What is left to settle, here or everywhere, worst first. */
export function Worklist({ station }: { station: Station["id"] }) {
  const { findings } = useDesign();
  const scope = useSession((s) => s.scope);
  const focus = useSession((s) => s.focus);
  const set = useSession((s) => s.set);
  const rows = listed(findings, station, scope);
  const first = inFocus(rows, focus);
  const left = rows.filter((f) => f.accepted == null);
  const accepted = rows.filter((f) => f.accepted != null);
  const [opened, setUnfolded] = useState(false);
  const unfolded = opened || (first !== undefined && accepted.includes(first));
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    list.current?.querySelector("[data-focus=true]")?.scrollIntoView({ block: "nearest" });
  }, [focus]);
  return (
    <aside
      aria-label="Findings"
      className="flex w-[304px] flex-col max-[1150px]:w-[248px] max-[900px]:absolute max-[900px]:top-11 max-[900px]:right-0 max-[900px]:bottom-10 max-[900px]:z-20 max-[900px]:w-[290px] overflow-hidden border-l border-rule bg-sheet"
    >
      <div className="flex items-center justify-between py-2 pr-2 pl-3.5 text-[12px]">
        <h2 className="font-semibold">{scope === "all" ? "Findings everywhere" : "Findings here"}</h2>
        <span className="flex gap-1">
          <button
            type="button"
            className="rounded px-1.5 py-0.5 text-faint hover:bg-wash hover:text-ink"
            onClick={() => set({ scope: scope === "all" ? "station" : "all" })}
          >
            {scope === "all" ? "only this station" : `all stations (${findings.length})`}
          </button>
          <button
            type="button"
            aria-label="Hide the worklist"
            className="rounded px-1.5 py-0.5 text-faint hover:bg-wash hover:text-ink"
            onClick={() => set({ worklist: false })}
          >
            ›
          </button>
        </span>
      </div>
      <ul ref={list} className={`min-h-0 overflow-y-auto ${rows.length ? "flex-1" : ""}`} tabIndex={-1}>
        {left.slice(0, 200).map((finding) => (
          <FindingRow key={finding.id} finding={finding} open={finding === first} />
        ))}
        {accepted.length > 0 && (
          <li className="border-t border-rule">
            <button
              type="button"
              aria-expanded={unfolded}
              className="w-full px-3.5 py-2 text-left text-[12px] text-faint hover:text-ink"
              onClick={() => setUnfolded(!unfolded)}
            >
              {unfolded ? "▾" : "▸"} {accepted.length} accepted
            </button>
          </li>
        )}
        {unfolded &&
          accepted.map((finding) => (
            <FindingRow key={finding.id} finding={finding} open={finding === first} />
          ))}
      </ul>
      {left.length === 0 && (
        <p className="flex-1 border-t border-rule px-3.5 py-3 text-faint">
          Nothing to fix or judge {scope === "all" ? "anywhere. Export the files at Cut." : "here."}
        </p>
      )}
      {left.length > 200 && (
        <p className="border-t border-rule px-3.5 py-2 text-faint">and {left.length - 200} more</p>
      )}
    </aside>
  );
}
