/** One plate on the board: the plate with what stands behind it, its parts, and what the view lays over it. */
import { memo, useMemo } from "react";
import type { Fn, ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Dimensions, inkOn, Plate } from "../../panel/Plate";
import { BehindView } from "./Behind";
import { Graphics } from "./Graphics";
import { GuideLines } from "./GuideLines";
import { Items, LiveClashes, LiveDistances } from "./Items";
import { Overlay } from "./Overlay";
import type { PlateOnBoard } from "./plates";
import type { ViewName } from "./store";
import { useViews } from "./useViews";

const at = (plate: PlateOnBoard) => `translate(${plate.x} ${plate.y})`;

interface UnderProps {
  plate: PlateOnBoard;
  view: ViewName;
  scale: number;
  /** The only plate on the board: its size is written beside it. */
  alone: boolean;
}

export function PlateUnder({ plate, view, scale, alone }: UnderProps) {
  const { module } = plate;
  const seen = useViews(module.id, view === "behind");
  return (
    <g transform={at(plate)}>
      {view === "behind" ? (
        <BehindView module={module} views={seen.data} scale={scale} />
      ) : (
        <g opacity={view === "reference" ? 0.55 : 1}>
          <Plate module={module} colour={module.face_colour} />
          <Bars module={module} scale={scale} />
        </g>
      )}
      {alone && <Dimensions module={module} scale={scale} />}
    </g>
  );
}

/** What is in the way behind, faintly through the plate. */
const Bars = memo(function Bars({ module, scale }: { module: ModuleView; scale: number }) {
  const { brief } = useDesign().design;
  const behind = brief.keepouts.filter((k) => k.side === "behind");
  if (behind.length === 0) return null;
  const ink = inkOn(module.face_colour);
  return (
    <g pointerEvents="none" opacity={0.45} data-testid="bars">
      <clipPath id={`bars-${module.id}`}>
        <path d={module.path} />
      </clipPath>
      <g clipPath={`url(#bars-${module.id})`}>
        {behind.map((k) => (
          <g key={k.id} transform={`translate(${k.x - module.x} ${k.y - module.y})`}>
            <rect
              width={k.width}
              height={k.height}
              fill={ink}
              fillOpacity={0.08}
              stroke={ink}
              strokeWidth={1 / scale}
              strokeDasharray={`${5 / scale} ${4 / scale}`}
            />
          </g>
        ))}
      </g>
    </g>
  );
});

export function ItemsOnBoard({ plate, here }: { plate: PlateOnBoard; here: readonly Fn[] }) {
  const { module } = plate;
  const mine = useMemo(() => here.filter((f) => f.place?.module === module.id), [here, module.id]);
  return (
    <g transform={at(plate)}>
      <Graphics module={module.id} ink={inkOn(module.face_colour)} />
      <Items here={mine} colour={module.face_colour} />
    </g>
  );
}

export function ViewOver({ plate, view, scale }: { plate: PlateOnBoard; view: ViewName; scale: number }) {
  const { module } = plate;
  const seen = useViews(module.id, view !== "face" && view !== "behind");
  return (
    <g transform={at(plate)}>
      <Overlay view={view} module={module} views={seen.data} scale={scale} />
      <GuideLines module={module.id} scale={scale} />
      <LiveDistances module={module.id} scale={scale} />
      <LiveClashes module={module.id} scale={scale} />
    </g>
  );
}
