/** The panel as a hand behind it meets it, left for right: bodies with their depth, cables, bars. */
import type { ModuleView } from "../../api/types";
import { Names } from "../../canvas/Names";
import type { Camera } from "../../canvas/useCamera";
import { shown } from "../../ui/figures";
import type { PlateOnBoard } from "./plates";
import { useEveryView } from "./useViews";
import type { Views } from "./viewTypes";

export function BehindView({
  module,
  views,
  scale,
}: {
  module: ModuleView;
  views: Views | undefined;
  scale: number;
}) {
  const s = 1 / scale;
  return (
    <g role="img" aria-label={`${module.name} from behind`}>
      <g transform={`translate(${module.width} 0) scale(-1 1)`}>
        <path d={module.path} fill={module.back_colour} stroke="var(--body-edge)" strokeWidth={s} />
        {module.fixings.map((f) => (
          <circle
            key={f.name}
            cx={f.x}
            cy={f.y}
            r={f.head / 2}
            fill="var(--metal)"
            stroke="var(--metal-edge)"
            strokeWidth={s}
          />
        ))}
        {views?.bodies.map((b) => (
          <g key={b.function}>
            {b.cable && (
              <path
                d={b.cable}
                fill="none"
                stroke="var(--body-edge)"
                strokeWidth={s}
                strokeDasharray={`${4 * s} ${3 * s}`}
              />
            )}
            <path
              d={b.path}
              fill={b.short ? "var(--body-short)" : "var(--body-light)"}
              stroke={b.short ? "var(--on-must)" : "var(--body-edge)"}
              strokeWidth={1.2 * s}
            />
          </g>
        ))}
        <clipPath id={`back-${module.id}`}>
          <path d={module.path} />
        </clipPath>
        {views?.boxes.map((k) => (
          <path
            clipPath={`url(#back-${module.id})`}
            key={k.name}
            d={k.path}
            fill="var(--bar)"
            fillOpacity={0.35}
            stroke="var(--bar-edge)"
            strokeWidth={1.2 * s}
            strokeDasharray={`${6 * s} ${4 * s}`}
          />
        ))}
      </g>
    </g>
  );
}

/** What every body on the board is called and how deep it reaches, kept out of each other's way. */
export function BodyNames({ plates, camera }: { plates: readonly PlateOnBoard[]; camera: Camera }) {
  const views = useEveryView(plates.map((p) => p.module.id));
  const things = plates.flatMap((plate, n) =>
    (views[n]?.bodies ?? []).map((b) => ({
      id: b.function,
      name: b.name,
      extra: `${shown(b.depth)} mm`,
      wrong: b.short,
      x: plate.x + plate.module.width - b.x,
      y: plate.y + b.y,
      width: b.width,
      height: b.height,
    })),
  );
  const bars = new Map(
    plates.flatMap((plate, n) =>
      (views[n]?.boxes ?? []).map((k) => [
        k.name,
        {
          text: `${k.name}, ${shown(k.clear)} mm free`,
          x: plate.x + plate.module.width - Math.min(k.x + k.width, plate.module.width),
          y: plate.y + k.y + k.height / 2,
        },
      ]),
    ),
  );
  return (
    <Names
      camera={camera}
      things={things}
      fixed={[...bars.values()]}
      grounds={plates.map(({ module, x, y }) => ({ x, y, width: module.width, height: module.height }))}
    />
  );
}
