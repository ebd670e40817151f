/** One placed part with its words. Memoised: a change elsewhere does not draw it again. */
import { memo } from "react";
import type { Fn, Lettering, Part } from "../api/types";
import { Outline, PartFront } from "./shapes";

export type Standing = "plain" | "stop" | "look";

interface Props {
  fn: Fn;
  part: Part;
  lettering: Lettering | undefined;
  ink: string;
  selected: boolean;
  hot: boolean;
  standing: Standing;
}

const RING = { plain: "var(--petrol)", stop: "var(--stop)", look: "var(--look)" } as const;

export const PartOnPanel = memo(function PartOnPanel({
  fn,
  part,
  lettering,
  ink,
  selected,
  hot,
  standing,
}: Props) {
  if (!fn.place) return null;
  const { x, y, turn } = fn.place;
  const digits = part.front.map((piece) => (piece.text ? `, ${piece.text}` : "")).join("");
  const marked = selected || hot;
  return (
    <g
      id={`part-${fn.id}`}
      className="part"
      data-fn={fn.id}
      transform={`translate(${x} ${y})`}
      role="option"
      aria-selected={selected}
      aria-label={`${fn.name}, ${part.name}${digits}, x ${x.toFixed(1)}, y ${y.toFixed(1)}`}
    >
      <g transform={turn ? `rotate(${turn})` : undefined}>
        <PartFront front={part.front} />
        {(marked || standing === "stop") && (
          <Outline
            shape={part.cover}
            grow={2}
            fill="none"
            stroke={selected ? "#4FB3BC" : RING[standing]}
            strokeWidth={selected ? 0.7 : 0.6}
            strokeDasharray={selected ? undefined : "2 1.4"}
          />
        )}
      </g>
      {lettering && (
        <g fill={ink} fillRule="evenodd">
          {lettering.words.map((word, n) => (
            <path
              key={n}
              d={word.path}
              transform={`translate(${word.x} ${word.y})`}
              fill={lettering.inside ? "#15191B" : ink}
            />
          ))}
          {lettering.marks && <path d={lettering.marks} stroke={ink} strokeWidth={0.6} fill="none" />}
        </g>
      )}
    </g>
  );
});
