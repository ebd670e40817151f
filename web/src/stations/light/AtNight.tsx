/** A part in the dark. */
import type { Fn, Part } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { frontOf } from "../../panel/PartOnPanel";
import { Outline, PartFront } from "../../panel/shapes";
import { useLightState } from "./store";

/** A part in the dark: its outline hardly seen, its lamp lit when all are. */
export function AtNight({ fn, part }: { fn: Fn; part: Part }) {
  const { examples, lenses } = useDesign();
  const { lit } = useLightState();
  const { selection, select } = useSession();
  if (!fn.place) return null;
  const shines = part.front.some((piece) => piece.lamp || piece.text);
  return (
    <g
      transform={`translate(${fn.place.x} ${fn.place.y})${fn.place.turn ? ` rotate(${fn.place.turn})` : ""}`}
      data-fn={fn.id}
      className="cursor-pointer"
      onClick={() => select([fn.id])}
    >
      <title>{fn.name}</title>
      <Outline
        shape={part.cover}
        x={part.cover_x}
        y={part.cover_y}
        fill="var(--night-part)"
        stroke={selection.includes(fn.id) ? "var(--night-mark)" : "var(--night-edge)"}
        strokeWidth={selection.includes(fn.id) ? 0.8 : 0.3}
      />
      {shines && lit === "all" && (
        <g className="glow">
          <PartFront front={frontOf(part, examples[fn.id], lenses[fn.id]).filter((p) => p.lamp || p.text)} />
        </g>
      )}
    </g>
  );
}
