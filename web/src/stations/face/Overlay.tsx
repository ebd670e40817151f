/** What the views lay over the plate: hands, webs and the eye; and the panel from behind. */
import type { ModuleView } from "../../api/types";
import { useDesign } from "../../app/design";
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

/** Bridges coloured by what they have to spare: each its figure, its shape tells the weight. */
function WebsOverlay({ views, scale }: { views: Views; scale: number }) {
  const s = 1 / scale;
  return (
    <g pointerEvents="none">
      {views.webs.map((w, n) => {
        const share = w.gap / w.needed;
        const colour = share < 0.5 ? "#FF8A80" : share < 1 ? "#E0B050" : "#7FC093";
        return (
          <g key={n}>
            <path
              d={`M${w.x0} ${w.y0}L${w.x1} ${w.y1}`}
              stroke={colour}
              strokeWidth={share < 1 ? 4 * s : 2.4 * s}
              strokeLinecap="round"
              strokeDasharray={share < 1 ? undefined : `${3 * s} ${3 * s}`}
            />
            {share < 1.6 && (
              <Tag x={(w.x0 + w.x1) / 2} y={(w.y0 + w.y1) / 2} s={s} text={shown(w.gap)} colour={colour} />
            )}
          </g>
        );
      })}
    </g>
  );
}

interface TagProps {
  x: number;
  y: number;
  s: number;
  text: string;
  colour: string;
}

export function Tag({ x, y, s, text, colour }: TagProps) {
  const width = text.length * 6.4 + 8;
  return (
    <g transform={`translate(${x} ${y}) scale(${s} ${-s})`}>
      <rect x={-width / 2} y={-8} width={width} height={16} rx={3} fill="#12181B" fillOpacity={0.88} />
      <text
        textAnchor="middle"
        dominantBaseline="central"
        fontFamily="var(--font-mono)"
        fontSize={11}
        fill={colour}
      >
        {text}
      </text>
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

/** The panel as a hand behind it meets it, left for right: bodies with their depth, cables, bars. */
const LETTER = 5.2;

/** A name in one or two lines that stay about as wide as its body (pixels). */
function fitted(name: string, width: number): string[] {
  const most = Math.max(6, Math.floor((width + 14) / LETTER));
  if (name.length <= most) return [name];
  const space = name.lastIndexOf(" ", most);
  const lines = space > 0 ? [name.slice(0, space), name.slice(space + 1)] : [name];
  return lines.map((line) => (line.length > most ? `${line.slice(0, most - 1)}…` : line));
}

export function Behind({
  module,
  views,
  scale,
}: {
  module: ModuleView;
  views: Views | undefined;
  scale: number;
}) {
  const s = 1 / scale;
  const mirror = (x: number) => module.width - x;
  return (
    <g aria-label={`${module.name} from behind`}>
      <g transform={`translate(${module.width} 0) scale(-1 1)`}>
        <path d={module.path} fill={module.back_colour} stroke="#8C8674" strokeWidth={s} />
        {module.fixings.map((f) => (
          <circle
            key={f.name}
            cx={f.x}
            cy={f.y}
            r={f.head / 2}
            fill="#A9B0B3"
            stroke="#5E676B"
            strokeWidth={s}
          />
        ))}
        {views?.bodies.map((b) => (
          <g key={b.function}>
            {b.cable && (
              <path
                d={b.cable}
                fill="none"
                stroke="#3E474B"
                strokeWidth={s}
                strokeDasharray={`${4 * s} ${3 * s}`}
              />
            )}
            <path
              d={b.path}
              fill={b.short ? "#E7A29C" : "#AEB5B9"}
              stroke={b.short ? "#B3261E" : "#3E474B"}
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
            fill="#E0B050"
            fillOpacity={0.35}
            stroke="#8A5A00"
            strokeWidth={1.2 * s}
            strokeDasharray={`${6 * s} ${4 * s}`}
          />
        ))}
      </g>
      {views?.bodies.map((b) => (
        <g
          key={b.function}
          transform={`translate(${mirror(b.x)} ${b.y}) scale(${s} ${-s})`}
          pointerEvents="none"
        >
          {fitted(b.name, b.width * scale).map((line, n, all) => (
            <text
              key={n}
              textAnchor="middle"
              y={12 * n + 3 - 6 * all.length}
              fontFamily="var(--font-sans)"
              fontSize={10.5}
              fill="#1E262B"
            >
              {line}
            </text>
          ))}
          <text
            textAnchor="middle"
            y={3 + 6 * fitted(b.name, b.width * scale).length}
            fontFamily="var(--font-mono)"
            fontSize={10.5}
            fill={b.short ? "#8C1A13" : "#1E262B"}
          >
            {shown(b.depth, 0)}
          </text>
        </g>
      ))}
    </g>
  );
}
