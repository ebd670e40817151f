/** What the views lay over the plate: hands, webs and the eye; and the panel from behind. */
import type { ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Cased } from "../../canvas/Cased";
import { Tag } from "../../canvas/Tag";
import { shown } from "../../ui/figures";
import { HandsOverlay } from "./HandsOverlay";
import type { ViewName } from "./store";
import type { Views } from "./viewTypes";

interface Props {
  view: ViewName;
  module: ModuleView;
  views: Views | undefined;
  scale: number;
}

export function Overlay({ view, module, views, scale }: Props) {
  if (!views) return null;
  if (view === "hands") return <HandsOverlay views={views} module={module} scale={scale} />;
  if (view === "webs") return <WebsOverlay views={views} scale={scale} />;
  if (view === "eye") return <EyeOverlay views={views} module={module} scale={scale} />;
  return null;
}

const WEB = {
  must: { colour: "var(--on-must)", wide: 4, dashes: false },
  judge: { colour: "var(--on-judge)", wide: 4, dashes: false },
  fine: { colour: "var(--on-ok)", wide: 2.4, dashes: true },
};

/** Bridges coloured by what they have to spare: each its figure, its shape tells the weight. */
function WebsOverlay({ views, scale }: { views: Views; scale: number }) {
  return (
    <g pointerEvents="none">
      {views.webs.map((w, n) => {
        const { colour, wide, dashes } = WEB[w.standing];
        const line = `M${w.x0} ${w.y0}L${w.x1} ${w.y1}`;
        return (
          <g key={n}>
            <Cased
              d={line}
              scale={scale}
              colour={colour}
              width={wide}
              {...(dashes ? { dashes: [3, 3] } : {})}
            />
            {w.near && <Tag x={(w.x0 + w.x1) / 2} y={(w.y0 + w.y1) / 2} scale={scale} text={shown(w.gap)} />}
          </g>
        );
      })}
    </g>
  );
}

function EyeOverlay({ views, module, scale }: { views: Views; module: ModuleView; scale: number }) {
  const s = 1 / scale;
  const { style } = useDesign().design;
  const eye = views.eye;
  const text = eye
    ? `${shown(eye.distance, 0)} mm away, ${shown(eye.off_square, 0)}° off square: letters look ${shown(eye.foreshortening * 100, 0)} % high; ${shown(eye.cap_needed)} mm needed, names ${shown(style.name_cap)}, positions ${shown(style.position_cap)}`
    : "Say at Brief how far the eye is from the panel's middle";
  return (
    <g
      transform={`translate(${module.width / 2} ${module.height + 16 * s}) scale(${s} ${-s})`}
      pointerEvents="none"
    >
      <text textAnchor="middle" fontFamily="var(--font-sans)" fontSize={12} fill="var(--ink)">
        {text}
      </text>
    </g>
  );
}
