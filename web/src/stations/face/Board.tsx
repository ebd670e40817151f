/** The board: the plates with their parts, seen through a camera, with selecting, dragging, dropping and measuring. */
import { useEffect, useMemo, useRef, useState } from "react";
import type { DesignView, Fn, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Canvas } from "../../canvas/Canvas";
import { useCamera } from "../../canvas/useCamera";
import { inkOn } from "../../panel/Plate";
import { BodyNames } from "./Behind";
import { BoardMenu, type MenuAt } from "./BoardMenu";
import { BoardStrip } from "./BoardStrip";
import { Carried } from "./Carried";
import { offerBoard } from "./carrying";
import { boxSelect } from "./boxSelect";
import { dragItems } from "./dragging";
import type { BoardContext } from "./held";
import { SelectBox } from "./Items";
import { Measure, useMeasuring } from "./Measure";
import { ItemsOnBoard, PlateUnder, ViewOver } from "./PlateOnBoard";
import { extentOf, plateAt, platesOf } from "./plates";
import { PicturePoints, ReferencePicture } from "./ReferencePicture";
import { plateViewport } from "./picture";
import { useFace } from "./store";
import { TurnHandle } from "./TurnHandle";
import { useBoardKeys } from "./useBoardKeys";
import { useViews } from "./useViews";

interface Props {
  /** The one module that is shown, or null for all of them side by side. */
  module: ModuleView | null;
  onPlaceNext: () => void;
}

/** What is under the pointer: a function or a graphic. */
const itemAt = (event: { target: EventTarget | null }): string | null =>
  event.target instanceof Element
    ? (event.target.closest("[data-fn]")?.getAttribute("data-fn") ?? null)
    : null;

export function Board({ module, onPlaceNext }: Props) {
  const view = useDesign();
  const changes = useChanges(view.id);
  const frame = useRef<HTMLDivElement>(null);
  const face = useFace();
  const behind = face.view === "behind";
  const plates = useMemo(() => platesOf(view, module, behind), [view, module, behind]);
  const first = plates[0]?.module;
  const seen = useViews(first?.id ?? "", face.view === "eye" && first !== undefined);
  const tall = face.view === "eye" ? (seen.data?.eye?.foreshortening ?? 1) : 1;
  const name = `${view.id} ${module?.id ?? "all"} ${behind ? "behind" : ""}`;
  const camera = useCamera(frame, extentOf(plates), { name, room: 52, tall });
  const measuring = useMeasuring();
  const [menu, setMenu] = useState<MenuAt | null>(null);
  const selection = useSession((s) => s.selection);
  const context: BoardContext = { view, plates, camera, changes };
  const here = useHere(view.design.functions, plates);
  useBoardKeys(context, here, onPlaceNext);
  useEffect(() => offerBoard(() => (frame.current ? { context, frame: frame.current } : null)));

  const pressed = (event: React.PointerEvent) => {
    if (event.button !== 0 || !frame.current || behind || face.picking) return;
    if (event.target instanceof Element && event.target.closest("[data-over]")) return;
    if (face.measuring) {
      const at = camera.at(event);
      return measuring.click(plateAt(plates, at), at.x, at.y, camera.now().scale);
    }
    const id = itemAt(event);
    const { select, toggle } = useSession.getState();
    if (!id) return boxSelect(event.nativeEvent, frame.current, context);
    if (event.shiftKey) toggle(id);
    else if (!selection.includes(id)) select([id]);
    dragItems(event.nativeEvent, id, context);
  };
  const asked = (event: React.MouseEvent) => {
    event.preventDefault();
    if (behind) return;
    const id = itemAt(event);
    if (id && !selection.includes(id)) useSession.getState().select([id]);
    setMenu({ x: event.clientX, y: event.clientY, on: camera.at(event), plates });
  };
  const one = selection.length === 1 ? here.find((f) => f.id === selection[0]) : undefined;
  const part = one && view.design.parts.find((p) => p.id === one.part);
  const plate = one && plates.find((p) => p.module.id === one.place?.module);
  const scale = camera.viewport.scale;
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className={face.measuring || face.picking ? "cursor-crosshair" : ""}
        onPress={pressed}
        onDoubleClick={(event) => selectGroup(itemAt(event), here)}
        onContextMenu={asked}
        drawing={{
          ...(behind || here.length === 0
            ? { role: "img" }
            : { role: "listbox", "aria-multiselectable": true }),
          "aria-label": `${module?.name ?? "All modules"}, ${here.length} parts`,
          "aria-activedescendant":
            selection[0] && !behind && here.some((f) => f.id === selection[0])
              ? `part-${selection[0]}`
              : undefined,
          tabIndex: 0,
          "data-board": module?.id ?? "all",
          onPointerMove: (event: React.PointerEvent) => {
            if (!face.measuring) return;
            const at = camera.at(event);
            measuring.hover(plateAt(plates, at), at.x, at.y, camera.now().scale);
          },
        }}
        under={
          face.view === "reference" &&
          plates.map((p) => (
            <Reference key={p.module.id} module={p.module} viewport={plateViewport(camera.viewport, p)} />
          ))
        }
        over={
          <>
            {face.picking && module && <Picked module={module} viewport={camera.viewport} frame={frame} />}
            {!behind && one && part && plate && !one.locked && face.view !== "reference" && (
              <span data-over="">
                <TurnHandle
                  fn={one}
                  part={part}
                  lettering={view.lettering[one.id]}
                  plate={plate}
                  context={context}
                />
              </span>
            )}
            <SelectBox />
            {here.length === 0 && face.view === "face" && first && (
              <p
                className="pointer-events-none absolute inset-x-0 top-1/2 text-center"
                style={{ color: inkOn(first.face_colour) }}
              >
                An empty plate: drag parts here from the tray.
              </p>
            )}
          </>
        }
      >
        {plates.map((p) => (
          <PlateUnder key={p.module.id} plate={p} view={face.view} scale={scale} alone={module !== null} />
        ))}
        {!behind && plates.map((p) => <ItemsOnBoard key={p.module.id} plate={p} here={here} />)}
        {plates.map((p) => (
          <ViewOver key={p.module.id} plate={p} view={face.view} scale={scale} />
        ))}
        {behind && <BodyNames plates={plates} camera={camera} />}
        {face.measuring && <Measure measured={measuring.measured} scale={scale} />}
      </Canvas>
      <BoardStrip here={here} camera={camera} />
      <Carried scale={scale} />
      {menu && <BoardMenu at={menu} here={here} context={context} onClose={() => setMenu(null)} />}
    </>
  );
}

/** The placed functions of the modules on the board; the same list while none of them changed. */
function useHere(functions: DesignView["design"]["functions"], plates: readonly { module: ModuleView }[]) {
  return useMemo(() => {
    const ids = new Set(plates.map((p) => p.module.id));
    return functions.filter((f) => f.place && ids.has(f.place.module));
  }, [functions, plates]);
}

interface PictureProps {
  module: ModuleView;
  viewport: ReturnType<typeof plateViewport>;
}

function Reference({ module, viewport }: PictureProps) {
  const seen = useViews(module.id, true);
  return <ReferencePicture module={module} views={seen.data} viewport={viewport} />;
}

function Picked({
  module,
  viewport,
  frame,
}: PictureProps & { frame: React.RefObject<HTMLDivElement | null> }) {
  const seen = useViews(module.id, true);
  return <PicturePoints module={module} views={seen.data} viewport={viewport} frame={frame} />;
}

/** A double click takes the whole group of the part under it. */
function selectGroup(id: string | null, here: readonly Fn[]): void {
  const group = here.find((f) => f.id === id)?.group;
  if (group) useSession.getState().select(here.filter((f) => f.group === group).map((f) => f.id));
}
