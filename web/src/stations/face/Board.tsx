/** The board: the plate with its parts, drawn through a viewport, with selecting, dragging, dropping and measuring. */
import { useRef, useState } from "react";
import { place } from "../../api/commands";
import type { Fn, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Dimensions, inkOn, Plate } from "../../panel/Plate";
import { matrix, type ModulePoint, px, toModule } from "../../panel/units";
import { useViewport } from "../../panel/useViewport";
import { ArrangeBar } from "./ArrangeBar";
import { boxSelect, dragParts } from "./drag";
import { Carried } from "./Carried";
import { Graphics } from "./Graphics";
import { Guides, Items, LiveClashes, LiveDistances, SelectBox } from "./Items";
import { Measure, type Measuring } from "./Measure";
import { Behind, Overlay } from "./Overlay";
import { PicturePoints, ReferencePicture } from "./ReferencePicture";
import { GRID, type Snapped } from "./snap";
import { useFace } from "./store";
import { useBoardKeys } from "./useBoardKeys";
import { useViews } from "./useViews";

interface Props {
  module: ModuleView;
  carried: Fn | null;
  onDropped: () => void;
  onPlaceNext: () => void;
}

export function Board({ module, carried, onDropped, onPlaceNext }: Props) {
  const view = useDesign();
  const changes = useChanges(view.id);
  const frame = useRef<HTMLDivElement>(null);
  const { viewport, zoom, fit } = useViewport(frame, module.width, module.height, 52);
  const [lines, setLines] = useState<Snapped["lines"]>({});
  const [box, setBox] = useState<{ from: ModulePoint; to: ModulePoint } | null>(null);
  const [measured, setMeasured] = useState<Measuring>({ from: null, to: null });
  const selection = useSession((s) => s.selection);
  const face = useFace();
  const seen = useViews(module.id, face.view !== "face");
  useBoardKeys(module.id, { zoom, fit, onPlaceNext });
  const colour = module.face_colour;
  const here = view.design.functions.filter((f) => f.place?.module === module.id);
  const context = { view, module: module.id, viewport, changes, onSnap: setLines };
  const behind = face.view === "behind";

  const pressed = (event: React.PointerEvent) => {
    if (event.button !== 0 || !frame.current || behind) return;
    const id = (event.target as Element).closest("[data-fn]")?.getAttribute("data-fn");
    const lead = here.find((f) => f.id === id);
    const { select, toggle } = useSession.getState();
    const bounds = frame.current.getBoundingClientRect();
    if (face.measuring) {
      const at =
        lead?.place ?? toModule(viewport, px(event.clientX - bounds.left), px(event.clientY - bounds.top));
      setMeasured((m) => (m.from && !m.to ? { ...m, to: at } : { from: at, to: null }));
      return;
    }
    if (face.picking) return;
    if (!lead) {
      if (!event.shiftKey) select([]);
      boxSelect(event.nativeEvent, frame.current, context, setBox);
      return;
    }
    if (event.shiftKey) toggle(lead.id);
    else if (!selection.includes(lead.id)) select([lead.id]);
    if (!lead.locked) dragParts(event.nativeEvent, lead, context);
  };

  return (
    <div
      ref={frame}
      className={`still relative min-h-0 flex-1 touch-none overflow-hidden select-none ${face.measuring || face.picking ? "cursor-crosshair" : ""}`}
      onPointerDown={pressed}
      onDoubleClick={(event) => selectGroup(event.target as Element, here)}
    >
      {face.view === "reference" && (
        <ReferencePicture module={module} views={seen.data} viewport={viewport} />
      )}
      <svg
        className="absolute inset-0 size-full outline-none focus-visible:outline-2 focus-visible:-outline-offset-2 focus-visible:outline-petrol"
        {...(behind || here.length === 0
          ? { role: "img" }
          : { role: "listbox", "aria-multiselectable": true })}
        aria-label={`${module.name}, ${here.length} parts`}
        aria-activedescendant={selection[0] && !behind ? `part-${selection[0]}` : undefined}
        tabIndex={0}
        data-board={module.id}
        data-scale={viewport.scale}
      >
        <g transform={matrix(viewport)}>
          {behind ? (
            <Behind module={module} views={seen.data} scale={viewport.scale} />
          ) : (
            <Squeezed module={module} share={face.view === "eye" ? (seen.data?.eye?.foreshortening ?? 1) : 1}>
              <g opacity={face.view === "reference" ? 0.55 : 1}>
                <Plate module={module} colour={colour} />
              </g>
              <Graphics module={module} ink={inkOn(colour)} />
              <Items here={here} colour={colour} />
              <Overlay view={face.view} module={module} views={seen.data} scale={viewport.scale} />
            </Squeezed>
          )}
          <Dimensions module={module} scale={viewport.scale} />
          <Guides lines={lines} module={module} scale={viewport.scale} />
          <LiveDistances module={module.id} scale={viewport.scale} />
          <LiveClashes module={module.id} scale={viewport.scale} />
          {box && <SelectBox box={box} scale={viewport.scale} />}
          {face.measuring && <Measure measured={measured} scale={viewport.scale} />}
        </g>
        {carried && (
          <Carried
            key={carried.id}
            fn={carried}
            module={module}
            viewport={viewport}
            frame={frame}
            others={here}
            onSnap={setLines}
            onDrop={(spot) => {
              onDropped();
              if (!spot) return;
              void changes.send([place(carried.id, module.id, spot.x, spot.y)]).then((kept) => {
                if (kept) useSession.getState().select([carried.id]);
              });
            }}
          />
        )}
      </svg>
      {face.view === "reference" && face.picking && (
        <PicturePoints module={module} views={seen.data} viewport={viewport} frame={frame} />
      )}
      {here.length === 0 && !carried && face.view === "face" && (
        <p
          className="pointer-events-none absolute inset-x-0 top-1/2 text-center"
          style={{ color: inkOn(colour) }}
        >
          An empty plate: drag parts here from the tray.
        </p>
      )}
      <ArrangeBar here={here} />
      <p className="num pointer-events-none absolute right-4 bottom-2 flex gap-4 text-faint">
        <span>1 : {(96 / 25.4 / viewport.scale).toFixed(2)}</span>{" "}
        <span>{face.measuring ? "measuring, Esc ends" : `snap ${GRID}`}</span>
      </p>
    </div>
  );
}

/** As high as the eye sees it. */
function Squeezed({
  module,
  share,
  children,
}: {
  module: ModuleView;
  share: number;
  children: React.ReactNode;
}) {
  if (share === 1) return children;
  return <g transform={`translate(0 ${(module.height * (1 - share)) / 2}) scale(1 ${share})`}>{children}</g>;
}

/** A double click takes the whole group of the part under it. */
function selectGroup(target: Element, here: readonly Fn[]): void {
  const id = target.closest("[data-fn]")?.getAttribute("data-fn");
  const group = here.find((f) => f.id === id)?.group;
  if (group) useSession.getState().select(here.filter((f) => f.group === group).map((f) => f.id));
}
