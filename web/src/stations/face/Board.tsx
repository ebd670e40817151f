/** The board: the plate with its parts, drawn through a viewport, with selecting, dragging and dropping. */
import { useRef, useState } from "react";
import { place } from "../../api/commands";
import type { Fn, PanelView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Distances } from "../../panel/Distances";
import { PartOnPanel, type Standing } from "../../panel/PartOnPanel";
import { Dimensions, inkOn, Plate } from "../../panel/Plate";
import { matrix, type PanelPoint } from "../../panel/units";
import { useViewport } from "../../panel/useViewport";
import { boxSelect, dragParts } from "./drag";
import { Carried } from "./Carried";
import { GRID, type Snapped } from "./snap";
import { useBoardKeys } from "./useBoardKeys";

interface Props {
  panel: PanelView;
  carried: Fn | null;
  onDropped: () => void;
  onPlaceNext: () => void;
}

export function Board({ panel, carried, onDropped, onPlaceNext }: Props) {
  const view = useDesign();
  const changes = useChanges(view.id);
  const frame = useRef<HTMLDivElement>(null);
  const { viewport, zoom, fit } = useViewport(frame, panel.width, panel.height);
  const [lines, setLines] = useState<Snapped["lines"]>({});
  const [box, setBox] = useState<{ from: PanelPoint; to: PanelPoint } | null>(null);
  const selection = useSession((s) => s.selection);
  useBoardKeys(panel.id, { zoom, fit, onPlaceNext });
  const colour = view.design.stack.find((layer) => layer.role === "face")?.colour ?? "#263033";
  const here = view.design.functions.filter((f) => f.place?.panel === panel.id);
  const context = { view, panel: panel.id, viewport, changes, onSnap: setLines };

  const pressed = (event: React.PointerEvent) => {
    if (event.button !== 0 || !frame.current) return;
    const id = (event.target as Element).closest("[data-fn]")?.getAttribute("data-fn");
    const lead = here.find((f) => f.id === id);
    const { select, toggle } = useSession.getState();
    if (!lead) {
      if (!event.shiftKey) select([]);
      boxSelect(event.nativeEvent, frame.current, context, setBox);
      return;
    }
    if (event.shiftKey) toggle(lead.id);
    else if (!selection.includes(lead.id)) select([lead.id]);
    dragParts(event.nativeEvent, lead, context);
  };

  return (
    <div ref={frame} className="still relative min-h-0 flex-1 touch-none select-none" onPointerDown={pressed}>
      <svg
        className="absolute inset-0 size-full outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-petrol"
        role="listbox"
        aria-multiselectable="true"
        aria-label={`${panel.name}, ${here.length} parts`}
        aria-activedescendant={selection[0] ? `part-${selection[0]}` : undefined}
        tabIndex={0}
        data-board={panel.id}
        data-scale={viewport.scale}
      >
        <g transform={matrix(viewport)}>
          <Plate panel={panel} colour={colour} />
          <Dimensions panel={panel} scale={viewport.scale} />
          <Items here={here} colour={colour} />
          <Guides lines={lines} panel={panel} scale={viewport.scale} />
          <LiveDistances panel={panel.id} scale={viewport.scale} />
          {box && <SelectBox box={box} scale={viewport.scale} />}
        </g>
        {carried && (
          <Carried
            key={carried.id}
            fn={carried}
            panel={panel}
            viewport={viewport}
            frame={frame}
            others={here}
            onSnap={setLines}
            onDrop={(spot) => {
              onDropped();
              if (!spot) return;
              void changes.send([place(carried.id, panel.id, spot.x, spot.y)]).then((kept) => {
                if (kept) useSession.getState().select([carried.id]);
              });
            }}
          />
        )}
      </svg>
      {here.length === 0 && !carried && (
        <p
          className="pointer-events-none absolute inset-x-0 top-1/2 text-center"
          style={{ color: inkOn(colour) }}
        >
          An empty plate: drag parts here from the tray.
        </p>
      )}
      <p className="num pointer-events-none absolute top-[-23px] right-4 flex gap-4 text-faint">
        <span>1 : {(96 / 25.4 / viewport.scale).toFixed(2)}</span> <span>snap {GRID}</span>
      </p>
    </div>
  );
}

function Items({ here, colour }: { here: readonly Fn[]; colour: string }) {
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

function LiveDistances({ panel, scale }: { panel: string; scale: number }) {
  const around = useSession((s) => s.around);
  return around?.panel === panel ? <Distances around={around} scale={scale} /> : null;
}

function Guides({ lines, panel, scale }: { lines: Snapped["lines"]; panel: PanelView; scale: number }) {
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

function SelectBox({ box, scale }: { box: { from: PanelPoint; to: PanelPoint }; scale: number }) {
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
