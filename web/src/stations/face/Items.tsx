/** The parts on one plate, and what shows while they are dragged. */
import { memo } from "react";
import type { Fn } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Distances } from "../../panel/Distances";
import { PartOnPanel, type Standing } from "../../panel/PartOnPanel";
import { inkOn } from "../../panel/Plate";
import { withUnit } from "../../ui/figures";
import { useFace } from "./store";

export const Items = memo(function Items({ here, colour }: { here: readonly Fn[]; colour: string }) {
  const { design, lettering, examples, lenses, findings } = useDesign();
  const selection = useSession((s) => s.selection);
  const hot = useSession((s) => s.hot);
  const parts = new Map(design.parts.map((p) => [p.id, p]));
  const standing = new Map<string, Standing>();
  for (const finding of findings) {
    if (finding.accepted != null || finding.severity === "note" || !finding.spot) continue;
    for (const id of finding.subjects) if (standing.get(id) !== "must") standing.set(id, finding.severity);
  }
  const ink = inkOn(colour);
  const chosen = new Set(selection);
  return here.map((fn) => {
    const part = fn.part ? parts.get(fn.part) : undefined;
    return (
      part && (
        <PartOnPanel
          key={fn.id}
          fn={fn}
          part={part}
          lettering={lettering[fn.id]}
          example={examples[fn.id]}
          lens={lenses[fn.id]}
          ink={ink}
          selected={chosen.has(fn.id)}
          hot={hot.includes(fn.id)}
          standing={standing.get(fn.id) ?? "plain"}
        />
      )
    );
  });
});

export function LiveDistances({ module, scale }: { module: string; scale: number }) {
  const around = useSession((s) => s.around);
  return around?.module === module ? <Distances around={around} scale={scale} /> : null;
}

const SAID = 3;

/** What would be wrong if the part were let go here: a ring at each place, the worst three in words. */
export function LiveClashes({ module, scale }: { module: string; scale: number }) {
  const clashes = useSession((s) => s.clashes);
  const around = useSession((s) => s.around);
  if (!around || clashes?.module !== module || clashes.findings.length === 0) return null;
  const s = 1 / scale;
  const lines = clashes.findings.slice(0, SAID).map((f) => {
    const figures =
      f.measured && f.needed
        ? `: ${withUnit(f.measured.value, f.measured.unit)} of ${withUnit(f.needed.value, f.needed.unit)}`
        : "";
    return { id: f.id, severity: f.severity, text: `${f.title}${figures}` };
  });
  const rest = clashes.findings.length - SAID;
  if (rest > 0) lines.push({ id: "rest", severity: "judge", text: `and ${rest} more` });
  const width = Math.max(...lines.map((l) => l.text.length)) * 6.6 + 34;
  return (
    <g pointerEvents="none" data-testid="clashes">
      {clashes.findings.map(
        (f) =>
          f.spot && (
            <g key={f.id} fill="none">
              <circle cx={f.spot.x} cy={f.spot.y} r={7 * s} stroke="var(--casing)" strokeWidth={4.5 * s} />
              <circle cx={f.spot.x} cy={f.spot.y} r={7 * s} stroke={MARK[f.severity]} strokeWidth={2.5 * s} />
            </g>
          ),
      )}
      <g transform={`translate(${around.x} ${around.y}) scale(${s} ${-s}) translate(26 26)`}>
        <rect width={width} height={lines.length * 19 + 8} rx={4} fill="var(--sheet)" stroke="var(--must)" />
        {lines.map((line, n) => (
          <g key={line.id} transform={`translate(9 ${n * 19 + 14})`}>
            <path
              d={line.severity === "must" ? "M0 -4.5H9V4.5H0Z" : "M4.5 -5L9.5 4H-.5Z"}
              fill={line.severity === "must" ? "var(--must)" : "var(--judge)"}
            />
            <text x={16} dominantBaseline="central" fontSize={12} fill="var(--ink)">
              {line.text}
            </text>
          </g>
        ))}
      </g>
    </g>
  );
}

/** Rings on the plate, in their casing. */
const MARK = { must: "var(--on-must)", judge: "var(--on-judge)", note: "var(--on-note)" };

/** The box that is being drawn round what shall be selected, in pixels. */
export function SelectBox() {
  const box = useFace((s) => s.box);
  if (!box) return null;
  return (
    <div
      className="pointer-events-none absolute border border-petrol bg-petrol/15 outline outline-1 outline-(--casing)"
      style={{ left: box.x, top: box.y, width: box.width, height: box.height }}
    />
  );
}
