/** Names of what is drawn, inside it or beside it with a line, the same size on the screen at every zoom. */
import { many } from "../ui/figures";
import { LETTER, LINE, placeLabels, type Rect } from "./labels";
import type { Camera } from "./useCamera";

export const WORDS = {
  fontFamily: "var(--font-sans)",
  fontSize: 10.5,
  fill: "var(--body-ink)",
  stroke: "var(--casing)",
  strokeWidth: 2.5,
  paintOrder: "stroke",
  pointerEvents: "none",
} as const;

export interface Named {
  id: string;
  name: string;
  /** A figure under the name; it is marked when it is wrong. */
  extra: string;
  wrong: boolean;
  /** The middle and size of the box round it (mm). */
  x: number;
  y: number;
  width: number;
  height: number;
}

interface Props {
  things: readonly Named[];
  camera: Camera;
  /** Words that stand where they are (mm, their left end): names keep clear of them. */
  fixed?: readonly { text: string; x: number; y: number }[];
}

export function Names({ things, camera, fixed = [] }: Props) {
  const { viewport, window } = camera;
  const s = 1 / viewport.scale;
  const boxes = things.map((t) => ({
    name: t.name,
    extra: t.extra,
    box: {
      x: (t.x - t.width / 2) / s,
      y: -(t.y + t.height / 2) / s,
      width: t.width / s,
      height: t.height / s,
    },
  }));
  const room = { x: -viewport.left, y: -viewport.top, width: window.width, height: window.height };
  const seen = boxes.map(({ box }) => touches(box, room));
  const standing = fixed.map(({ text, x, y }) => ({
    x: x / s + 6,
    y: -y / s - LINE / 2,
    width: text.length * LETTER,
    height: LINE,
  }));
  const labels = placeLabels(boxes, room, standing);
  const left = labels.filter((label, n) => !label && seen[n]).length;
  return (
    <g transform={`scale(${s} ${-s})`}>
      {labels.map((label, n) =>
        label?.leader ? (
          <path
            key={things[n]?.id}
            d={`M${label.leader.x0} ${label.leader.y0}L${label.leader.x1} ${label.leader.y1}`}
            stroke="var(--body-edge)"
          />
        ) : null,
      )}
      {labels.map(
        (label, n) =>
          label && (
            <text key={things[n]?.id} textAnchor="middle" {...WORDS}>
              {label.lines.map((line, k) => (
                <tspan
                  key={k}
                  x={label.x}
                  y={label.y + (k - (label.lines.length - 1) / 2) * LINE + 3.5}
                  fontFamily={k === label.lines.length - 1 ? "var(--font-mono)" : undefined}
                  fill={k === label.lines.length - 1 && things[n]?.wrong ? "var(--on-must)" : undefined}
                >
                  {line}
                </tspan>
              ))}
            </text>
          ),
      )}
      {fixed.map(({ text }, n) => (
        <text key={text} x={standing[n]?.x} y={(standing[n]?.y ?? 0) + LINE - 2.5} {...WORDS}>
          {text}
        </text>
      ))}
      {left > 0 && (
        <text x={room.x + 12} y={room.y + room.height - 12} {...WORDS} fill="var(--ink)">
          {many(left, "name has", "names have")} no room here: zoom in
        </text>
      )}
    </g>
  );
}

const touches = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
