/** By hand: what is drilled with what, smallest first, large openings last; and the jigs that are worth making. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";
import { many, shown } from "../../ui/figures";
import { NotThere } from "../../ui/NotThere";

const CELL = "border-t border-rule px-3 py-1.5 align-top";

export function ByHand() {
  const { id, revision } = useDesign();
  const found = useQuery({
    queryKey: ["by hand", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/cut/by-hand", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!found.data) return <NotThere query={found} words="Listing holes…" />;
  const { work, jigs } = found.data;
  const pieces = [...new Set(work.map((w) => w.piece))];
  return (
    <div className="min-h-0 flex-1 overflow-y-auto bg-sheet" tabIndex={0} role="region" aria-label="By hand">
      <p className="px-4 py-3 text-[12px]/[17px] text-faint">
        Tape the 1:1 template on, measure its bar, punch every centre. Pilots first, then the smallest holes;
        clamp the sheet on waste wood, wear glasses, no gloves near the spindle.
      </p>
      {jigs.length > 0 && (
        <section className="px-4 pb-3">
          <h3 className="text-[13px] font-semibold">One setting of a jig</h3>
          <ul className="mt-1 grid gap-x-8 gap-y-1.5 text-[12px] min-[1200px]:grid-cols-2">
            {jigs.slice(0, 8).map((jig) => (
              <li
                key={`${jig.from_side} ${jig.from_end} ${jig.diameter}`}
                className="flex items-center gap-3"
              >
                <Corner />
                <span>
                  <span className="num font-semibold">
                    {shown(jig.from_side)} × {shown(jig.from_end)}
                  </span>{" "}
                  from side and end: {many(jig.many, "hole")}{" "}
                  <span className="num whitespace-nowrap">⌀ {jig.diameter}</span> in{" "}
                  {many(jig.pieces.length, "piece")}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {pieces.map((piece) => (
        <section key={piece} className="pb-3">
          <h3 className="px-4 pt-2 pb-1 text-[13px] font-semibold">{piece}</h3>
          <table className="w-full text-[12px]">
            <thead className="text-left text-[11px] text-faint">
              <tr>
                <th className="px-3 py-1 pl-4 font-normal">Many</th>
                <th className="px-3 py-1 font-normal">⌀ mm</th>
                <th className="px-3 py-1 font-normal">With</th>
                <th className="px-3 py-1 font-normal">Pilot</th>
                <th className="px-3 py-1 font-normal">Mind</th>
              </tr>
            </thead>
            <tbody>
              {work
                .filter((w) => w.piece === piece)
                .map((w, n) => (
                  <tr key={n}>
                    <td className={`${CELL} num pl-4 whitespace-nowrap`}>{w.many} ×</td>
                    <td className={`${CELL} num whitespace-nowrap`}>{w.diameter > 0 ? w.diameter : ""}</td>
                    <td className={CELL}>
                      {w.bit}
                      {w.what !== "hole" && <span className="block text-[11px] text-faint">{w.what}</span>}
                    </td>
                    <td className={`${CELL} num`}>{w.pilot > 0 ? w.pilot : "–"}</td>
                    <td className={`${CELL} text-faint`}>{w.mind}</td>
                  </tr>
                ))}
            </tbody>
          </table>
        </section>
      ))}
    </div>
  );
}

/** A corner with a hole in it. */
function Corner() {
  return (
    <svg width="34" height="26" aria-hidden="true" className="shrink-0">
      <path d="M2 2V24H32" fill="none" stroke="var(--ink)" strokeWidth="1.4" />
      <circle cx="15" cy="13" r="4" fill="none" stroke="var(--petrol)" strokeWidth="1.4" />
      <path d="M2 13H11M15 24V17" stroke="var(--faint)" strokeDasharray="2 2" />
    </svg>
  );
}
