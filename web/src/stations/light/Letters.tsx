/** What is engraved on a module, in one ink: lit, unlit, or as the openings of a mask. */
import { useDesign } from "../../app/design";
import { WordPath } from "../../panel/WordPath";

/** All words, marks and graphics on a module's face. */
export function Letters({
  module,
  ink = "var(--open)",
  faint = false,
}: {
  module: string;
  ink?: string;
  faint?: boolean;
}) {
  const { design, lettering, graphics } = useDesign();
  return (
    <g opacity={faint ? 0.5 : 1} pointerEvents="none">
      {design.functions.map((fn) => {
        const letters = lettering[fn.id];
        if (!letters || letters.inside || fn.place?.module !== module) return null;
        return (
          <g key={fn.id} transform={`translate(${fn.place.x} ${fn.place.y})`} fill={ink} fillRule="evenodd">
            {letters.words.map((word, n) => (
              <WordPath key={n} word={word} ink={ink} />
            ))}
            {letters.marks && <path d={letters.marks} stroke={ink} strokeWidth={0.6} fill="none" />}
          </g>
        );
      })}
      {graphics
        .filter((g) => design.graphics.find((one) => one.id === g.id)?.module === module)
        .map((g) => (
          <g key={g.id} fill={ink} fillRule="evenodd">
            {g.words.map((word, n) => (
              <WordPath key={n} word={word} ink={ink} />
            ))}
          </g>
        ))}
    </g>
  );
}
