/** One placed part with its words. Memoised: a change elsewhere does not draw it again. */
import { memo } from "react";
import type { Fn, Lettering, Part } from "../api/types";
import { shown } from "../ui/figures";
import { Outline, PartFront, reach } from "./shapes";
import { WordPath } from "./WordPath";

export type Standing = "plain" | "must" | "judge";

interface Props {
  fn: Fn;
  part: Part;
  lettering: Lettering | undefined;
  example: string | undefined;
  /** Fill of its lenses, where they are not in the part's usual colour. */
  lens: string | undefined;
  ink: string;
  selected: boolean;
  hot: boolean;
  standing: Standing;
}

const RING = {
  plain: "var(--chosen)",
  chosen: "var(--chosen)",
  must: "var(--on-must)",
  judge: "var(--on-judge)",
} as const;
const DASHES = { plain: "2 1.4", chosen: undefined, must: "2 1.4", judge: "0.2 1.5" } as const;

/** Round a part, clear of its legend: chosen in one line, to fix dashed, to judge dotted; its casing reads on every plate. */
function Ring({ part, standing, strong }: { part: Part; standing: keyof typeof RING; strong: boolean }) {
  const at = { shape: part.cover, x: part.cover_x, y: part.cover_y, grow: 0.45, fill: "none" };
  const width = strong ? 0.8 : 0.6;
  return (
    <g strokeLinecap="round" pointerEvents="none">
      <Outline {...at} stroke="var(--casing)" strokeWidth={width + 0.4} />
      <Outline {...at} stroke={RING[standing]} strokeWidth={width} strokeDasharray={DASHES[standing]} />
    </g>
  );
}

/** How much (mm) of a read-out the face hides, off its left. */
const hiddenDigits = (fn: Fn, part: Part): number =>
  part.digits && fn.digits != null ? Math.max(0, part.digits.count - fn.digits) * part.digits.pitch : 0;

/** A pin: it is locked where it is. */
function Pin({ part }: { part: Part }) {
  const { width, height } = reach(part.cover);
  return (
    <circle
      cx={width / 2}
      cy={height / 2}
      r={1.6}
      fill="var(--pin)"
      stroke="var(--body-ink)"
      strokeWidth={0.4}
    />
  );
}

/** A front with a text of its own in the place of the part's, and lenses in a colour of their own. */
export const frontOf = (part: Part, text?: string, lens?: string): Part["front"] =>
  text === undefined && lens === undefined
    ? part.front
    : part.front.map((piece) => ({
        ...piece,
        ...(piece.text && text !== undefined ? { text } : {}),
        ...(piece.lamp && lens !== undefined ? { fill: lens } : {}),
      }));

/** What is left showing of a read-out with hidden digits. */
function Window({ fn, part }: { fn: Fn; part: Part }) {
  const { width, height } = reach(part.cover);
  const hidden = hiddenDigits(fn, part);
  return (
    <clipPath id={`window-${fn.id}`}>
      <rect x={-width / 2 + hidden} y={-height / 2} width={width - hidden} height={height} />
    </clipPath>
  );
}

export const PartOnPanel = memo(function PartOnPanel({
  fn,
  part,
  lettering,
  example,
  lens,
  ink,
  selected,
  hot,
  standing,
}: Props) {
  if (!fn.place) return null;
  const { x, y, turn } = fn.place;
  const front = frontOf(part, example, lens);
  const digits = front.map((piece) => (piece.text ? `, ${piece.text.trim()}` : "")).join("");
  const marked = selected || hot;
  return (
    <g
      id={`part-${fn.id}`}
      className="part"
      data-fn={fn.id}
      transform={`translate(${x} ${y})`}
      role="option"
      aria-selected={selected}
      aria-label={`${fn.name}, ${part.name}${digits}, x ${shown(x)}, y ${shown(y)}`}
    >
      <g transform={turn ? `rotate(${turn})` : undefined}>
        <g data-touch={fn.id} clipPath={hiddenDigits(fn, part) > 0 ? `url(#window-${fn.id})` : undefined}>
          <PartFront front={front} />
        </g>
        {hiddenDigits(fn, part) > 0 && <Window fn={fn} part={part} />}
        {fn.locked && <Pin part={part} />}
        {(marked || standing !== "plain") && (
          <Ring part={part} standing={selected ? "chosen" : standing} strong={marked} />
        )}
      </g>
      {lettering && (
        <g fill={ink} fillRule="evenodd">
          {lettering.words.map((word, n) => (
            <WordPath key={n} word={word} ink={lettering.inside ? "var(--lens-ink)" : ink} />
          ))}
          {lettering.marks && <path d={lettering.marks} stroke={ink} strokeWidth={0.6} fill="none" />}
        </g>
      )}
    </g>
  );
});
