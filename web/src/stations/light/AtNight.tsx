/** A part in the dark. */
import type { Fn, Part } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { frontOf } from "../../panel/PartOnPanel";
import { Outline, PartFront } from "../../panel/shapes";
import { WordPath } from "../../panel/WordPath";
import { useLightState } from "./store";

/** A part in the dark: its outline hardly seen, its lamp as it is lit; of several with only some lit, fainter. */
export function AtNight({ fn, part }: { fn: Fn; part: Part }) {
  const { examples, lenses, lettering } = useDesign();
  const { lit } = useLightState();
  const { selection, select } = useSession();
  if (!fn.place) return null;
  const lines = part.lines.filter((line) => line.does === "lamp").map((line) => `${fn.id} ${line.id}`);
  const on = lit === "all" ? 1 : (shareOf(lines, lit) ?? (lit.includes(fn.id) ? 1 : 0));
  const shines = on > 0 && part.front.some((piece) => piece.lamp || piece.text);
  const inside = lettering[fn.id]?.inside ? lettering[fn.id]?.words : undefined;
  return (
    <g
      transform={`translate(${fn.place.x} ${fn.place.y})`}
      data-fn={fn.id}
      className="cursor-pointer"
      onClick={() => select([fn.id])}
    >
      <title>{fn.name}</title>
      <g transform={fn.place.turn ? `rotate(${fn.place.turn})` : undefined}>
        <Outline
          shape={part.cover}
          x={part.cover_x}
          y={part.cover_y}
          fill="var(--night-part)"
          stroke={selection.includes(fn.id) ? "var(--night-mark)" : "var(--night-edge)"}
          strokeWidth={selection.includes(fn.id) ? 0.8 : 0.3}
        />
        {shines && (
          <g className="glow" opacity={0.45 + 0.55 * on}>
            <PartFront
              front={frontOf(part, examples[fn.id], lenses[fn.id]).filter((p) => p.lamp || p.text)}
            />
          </g>
        )}
      </g>
      {shines && inside?.map((word, n) => <WordPath key={n} word={word} ink="var(--lens-ink)" />)}
    </g>
  );
}

/** Of so many lamps, the share that is lit; none of something without lamps. */
const shareOf = (lines: readonly string[], lit: readonly string[]): number | null =>
  lines.length === 0 ? null : lines.filter((line) => lit.includes(line)).length / lines.length;
