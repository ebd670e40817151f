/** Opening, modules, what is in the way, and a machine's bed over them, at true proportions; dragged and typed here. */
import { useRef, useState } from "react";
import { resizeOpening } from "../../api/commands";
import type { DesignView } from "../../api/types";
import { useLooking } from "../../app/Looking";
import { useChanges } from "../../app/design";
import { type PointPx, toPx } from "../../canvas/camera";
import { Canvas } from "../../canvas/Canvas";
import { Dim } from "../../canvas/Dim";
import { useCamera } from "../../canvas/useCamera";
import { shown } from "../../ui/figures";
import { useBrief } from "./useBrief";
import { below, BoxPiece, Dims, Handles, ModulePiece, ofKeepOut, ofModule } from "./pieces";

export function FrontElevation({ view }: { view: DesignView }) {
  const { send } = useChanges(view.id);
  const frame = useRef<HTMLDivElement>(null);
  const [bed, setBed] = useState("");
  const [chosen, setChosen] = useState<string | null>(null);
  const { opening_width: width, opening_height: height } = view;
  const { brief } = view.design;
  const camera = useCamera(frame, { x: 0, y: 0, width, height }, { name: `front ${view.id}`, room: 34 });
  useLooking(camera);
  const v = camera.viewport;
  const usable = useBrief().data?.usable[bed];
  const pieces = [...view.modules.map(ofModule), ...brief.keepouts.map(ofKeepOut)];
  const piece = pieces.find((p) => p.id === chosen);
  const s = 1 / v.scale;
  return (
    <>
      <div className="mt-2 flex h-56 min-[1500px]:h-80">
        <Canvas
          camera={camera}
          frame={frame}
          offersFit
          drawing={{
            role: "group",
            "aria-label": `Opening ${shown(width)} by ${shown(height)} mm with ${view.modules.length} modules`,
            onPointerDown: () => setChosen(null),
          }}
          over={
            <>
              {brief.opening.kind === "path" ? (
                <Sizes view={view} at={toPx(v, width / 2, 0)} />
              ) : (
                <>
                  <Dim
                    at={below(toPx(v, width / 2, 0), 16)}
                    label="Opening, width"
                    value={brief.opening.width}
                    least={5}
                    onCommit={(mm) => void send([resizeOpening({ width: mm })])}
                  />
                  <Dim
                    at={toPx(v, -16 * s, height / 2)}
                    label="Opening, height"
                    value={brief.opening.height}
                    least={5}
                    className="-rotate-90"
                    onCommit={(mm) => void send([resizeOpening({ height: mm })])}
                  />
                </>
              )}
              {piece && <Dims piece={piece} at={(x, y) => toPx(v, x, y)} send={(c) => void send([c])} />}
            </>
          }
        >
          <path d={view.opening} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4 * s} />
          {view.modules.map((module) => (
            <ModulePiece
              key={module.id}
              module={module}
              view={view}
              s={s}
              chosen={chosen === module.id}
              onChoose={setChosen}
            />
          ))}
          {usable &&
            view.modules.map((module) => (
              <rect
                key={module.id}
                x={module.x}
                y={module.y}
                width={usable.width}
                height={usable.height}
                fill="none"
                stroke="var(--bed)"
                strokeWidth={1.4 * s}
                strokeDasharray={`${6 * s} ${3 * s}`}
                pointerEvents="none"
              />
            ))}
          {brief.keepouts.map((box) => (
            <BoxPiece
              key={box.id}
              box={box}
              view={view}
              s={s}
              chosen={chosen === box.id}
              onChoose={setChosen}
            />
          ))}
          {piece && <Handles piece={piece} view={view} s={s} />}
        </Canvas>
      </div>
      {view.design.workshop.machines.length > 0 && (
        <label className="mt-1 flex items-center gap-2 text-[12px] text-faint">
          <span className="shrink-0">Show a machine's bed</span>
          <select
            className="h-7 min-w-0 rounded border border-faint bg-sheet px-1 text-ink"
            value={bed}
            onChange={(event) => setBed(event.target.value)}
          >
            <option value="">none</option>
            {view.design.workshop.machines.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </select>
        </label>
      )}
    </>
  );
}

/** The size of a drawn opening; where it was measured, the least counts. */
function Sizes({ view, at }: { view: DesignView; at: PointPx }) {
  const { widths } = view.design.brief;
  const figure =
    widths.length > 0
      ? `${shown(Math.min(...widths))} least of ${widths.map((w) => shown(w)).join(" ")}`
      : `${shown(view.opening_width)} × ${shown(view.opening_height)}`;
  return (
    <p className="num pointer-events-none absolute -translate-x-1/2" style={{ left: at.x, top: at.y + 8 }}>
      {figure}
    </p>
  );
}
