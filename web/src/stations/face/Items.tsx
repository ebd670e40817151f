/** The parts on the board, and what shows while they are dragged. */
import type { Fn, PanelView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Distances } from "../../panel/Distances";
import { PartOnPanel, type Standing } from "../../panel/PartOnPanel";
import { inkOn } from "../../panel/Plate";
import type { PanelPoint } from "../../panel/units";
import type { Snapped } from "./snap";

export function Items({ here, colour }: { here: readonly Fn[]; colour: string }) {
  const { design, lettering, findings } = useDesign();
  const selection = useSession((s) => s.selection);
  const hot = useSession((s) => s.hot);
  const parts = new Map(design.parts.map((p) => [p.id, p]));
  const standing = new Map<string, Standing>();
  for (const finding of findings) {
    if (finding.accepted != null || finding.weight === "note" || !finding.spot) continue;
    for (const id of finding.subjects) if (standing.get(id) !== "stop") standing.set(id, finding.weight);
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
          ink={ink}
          selected={selection.includes(fn.id)}
          hot={hot.includes(fn.id)}
          standing={standing.get(fn.id) ?? "plain"}
        />
      )
    );
  });
}

export function LiveDistances({ panel, scale }: { panel: string; scale: number }) {
  const around = useSession((s) => s.around);
  return around?.panel === panel ? <Distances around={around} scale={scale} /> : null;
}

interface GuidesProps {
  lines: Snapped["lines"];
  panel: PanelView;
  scale: number;
}

export function Guides({ lines, panel, scale }: GuidesProps) {
  return (
    <g
      stroke="#4FB3BC"
      strokeWidth={1 / scale}
      strokeDasharray={`${4 / scale} ${3 / scale}`}
      pointerEvents="none"
    >
      {lines.x !== undefined && <path d={`M${lines.x} 0V${panel.height}`} />}
      {lines.y !== undefined && <path d={`M0 ${lines.y}H${panel.width}`} />}
    </g>
  );
}

export function SelectBox({ box, scale }: { box: { from: PanelPoint; to: PanelPoint }; scale: number }) {
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
