/** Names of what is drawn, inside it or beside it with a line, the same size on the screen at every zoom. */
import { many } from "../ui/figures";
import { LETTER, LINE, type Label, placeLabels, type Rect } from "./labels";
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

const ON_DESK = { fill: "var(--ink)", stroke: "var(--desk)" };
const ON_SHEET = { fill: "var(--ink)", stroke: "var(--sheet)" };
const INSIDE = { stroke: "none" };

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

/** A light ground (mm), whatever the theme: a plate's back. */
export interface Ground {
  x: number;
  y: number;
  width: number;
  height: number;
}

interface Props {
  things: readonly Named[];
  camera: Camera;
  /** Where the ground is not the desk's: names on it are written in its ink. */
  grounds?: readonly Ground[];
  /** Whether the drawing lies on a sheet instead of the desk. */
  onSheet?: boolean;
  /** Drawn boxes (mm, from their lower left) that no name beside its thing is laid over. */
  keepOff?: readonly Ground[];
  /** Words that stand where they are (mm, their left end): names keep clear of them. */
  fixed?: readonly { text: string; x: number; y: number }[];
}

export function Names({ things, camera, fixed = [], grounds = [], onSheet = false, keepOff = [] }: Props) {
  const around = onSheet ? ON_SHEET : ON_DESK;
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
  const barred = keepOff.map((g) => ({
    x: g.x / s,
    y: -(g.y + g.height) / s,
    width: g.width / s,
    height: g.height / s,
  }));
  const labels = placeLabels(boxes, room, [...standing, ...barred]);
  const crowded = labels.filter((label, n) => !label && seen[n]).length * 2 > seen.filter(Boolean).length;
  const drawn = labels.map((label) => (crowded && label?.leader ? null : label));
  const left = drawn.filter((label, n) => !label && seen[n]).length;
  const inkAt = (x: number, y: number) =>
    grounds.some((g) => x * s > g.x && x * s < g.x + g.width && -y * s > g.y && -y * s < g.y + g.height)
      ? {}
      : around;
  return (
    <g transform={`scale(${s} ${-s})`}>
      {drawn.map((label, n) =>
        label?.leader ? (
          <path
            key={things[n]?.id}
            d={`M${label.leader.x0} ${label.leader.y0}L${label.leader.x1} ${label.leader.y1}`}
            stroke="var(--body-edge)"
          />
        ) : null,
      )}
      {drawn.map(
        (label, n) =>
          label && (
            <text
              key={things[n]?.id}
              textAnchor="middle"
              {...WORDS}
              {...(label.leader ? inkAt(label.x, label.y) : INSIDE)}
            >
              {label.lines.map((line, k) => (
                <tspan
                  key={k}
                  x={label.x}
                  y={label.y + (k - (label.lines.length - 1) / 2) * LINE + 3.5}
                  fontFamily={k === label.lines.length - 1 ? "var(--font-mono)" : undefined}
                  fill={
                    k === label.lines.length - 1 && things[n]?.wrong
                      ? wrongOn(label, inkAt, around)
                      : undefined
                  }
                >
                  {line}
                </tspan>
              ))}
            </text>
          ),
      )}
      {fixed.map(({ text }, n) => (
        <text
          key={text}
          x={standing[n]?.x}
          y={(standing[n]?.y ?? 0) + LINE - 2.5}
          {...WORDS}
          {...inkAt((standing[n]?.x ?? 0) + 1, standing[n]?.y ?? 0)}
        >
          {text}
        </text>
      ))}
      {left > 0 && (
        <text x={room.x + 12} y={room.y + room.height - 12} {...WORDS} {...around}>
          {many(left, "name has", "names have")} no room here: zoom in
        </text>
      )}
    </g>
  );
}

const touches = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** What is wrong is red for its ground: the desk's by the theme, a plate's or a body's always a light one's. */
const wrongOn = (label: Label, inkAt: (x: number, y: number) => object, around: object): string =>
  label.leader && inkAt(label.x, label.y) === around ? "var(--must)" : "var(--on-must)";
