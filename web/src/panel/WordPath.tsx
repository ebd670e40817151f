import type { Lettering } from "../api/types";

type Word = Lettering["words"][number];

/** A line of words: filled outlines, or the strokes of a single-stroke font as wide as they are engraved. */
export function WordPath({ word, ink }: { word: Word; ink: string }) {
  return (
    <path
      d={word.path}
      transform={`translate(${word.x} ${word.y})`}
      fill={word.stroke == null ? ink : "none"}
      fillRule="evenodd"
      stroke={word.stroke == null ? "none" : ink}
      strokeWidth={word.stroke ?? 0}
      strokeLinecap="round"
      strokeLinejoin="round"
    />
  );
}
