/** The parts on the board, and what shows while they are dragged. */
import type { Fn, ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Distances } from "../../panel/Distances";
import { PartOnPanel, type Standing } from "../../panel/PartOnPanel";
import { inkOn } from "../../panel/Plate";
import type { ModulePoint } from "../../panel/units";
import { withUnit } from "../../ui/figures";
import type { Snapped } from "./snap";

export function Items({ here, colour }: { here: readonly Fn[]; colour: string }) {
  const { design, lettering, examples, findings } = useDesign();
  const selection = useSession((s) => s.selection);
  const hot = useSession((s) => s.hot);
  const parts = new Map(design.parts.map((p) => [p.id, p]));
  const standing = new Map<string, Standing>();
  for (const finding of findings) {
    if (finding.accepted != null || finding.severity === "note" || !finding.spot) continue;
    for (const id of finding.subjects) if (standing.get(id) !== "must") standing.set(id, finding.severity);
  }
  const ink = inkOn(colour);
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
          ink={ink}
          selected={selection.includes(fn.id)}
          hot={hot.includes(fn.id)}
          standing={standing.get(fn.id) ?? "plain"}
        />
      )
    );
  });
}

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
            <circle
              key={f.id}
              cx={f.spot.x}
              cy={f.spot.y}
              r={7 * s}
              fill="none"
              stroke={CLASH[f.severity]}
              strokeWidth={2.5 * s}
            />
          ),
      )}
      <g transform={`translate(${around.x} ${around.y}) scale(${s} ${-s}) translate(26 26)`}>
        <rect width={width} height={lines.length * 19 + 8} rx={4} fill="#FFFFFF" stroke="#B3261E" />
        {lines.map((line, n) => (
          <g key={line.id} transform={`translate(9 ${n * 19 + 14})`}>
            <path
              d={line.severity === "must" ? "M0 -4.5H9V4.5H0Z" : "M4.5 -5L9.5 4H-.5Z"}
              fill={CLASH[line.severity]}
            />
            <text x={16} dominantBaseline="central" fontSize={12} fill="#20282C">
              {line.text}
            </text>
          </g>
        ))}
      </g>
    </g>
  );
}

const CLASH = { must: "#B3261E", judge: "#A86400", note: "#5C666C" };

interface GuidesProps {
  lines: Snapped["lines"];
  module: ModuleView;
  scale: number;
}

export function Guides({ lines, module, scale }: GuidesProps) {
  return (
    <g
      stroke="#4FB3BC"
      strokeWidth={1 / scale}
      strokeDasharray={`${4 / scale} ${3 / scale}`}
      pointerEvents="none"
    >
      {lines.x !== undefined && <path d={`M${lines.x} 0V${module.height}`} />}
      {lines.y !== undefined && <path d={`M0 ${lines.y}H${module.width}`} />}
    </g>
  );
}

export function SelectBox({ box, scale }: { box: { from: ModulePoint; to: ModulePoint }; scale: number }) {
  const x = Math.min(box.from.x, box.to.x);
  const y = Math.min(box.from.y, box.to.y);
  return (
    <rect
      x={x}
      y={y}
      width={Math.abs(box.to.x - box.from.x)}
      height={Math.abs(box.to.y - box.from.y)}
      fill="#4FB3BC"
      fillOpacity={0.15}
      stroke="#4FB3BC"
      strokeWidth={1 / scale}
    />
  );
}
