/** Brackets, boxes, texts, placards and symbols on the plate: selected, moved and removed like parts. */
import type { DesignView } from "../../api/types";
import { useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { WordPath } from "../../panel/WordPath";
import { useGraphicShift } from "./graphicShift";

type Graphic = DesignView["graphics"][number];

export function Graphics({ module, ink }: { module: string; ink: string }) {
  const { graphics } = useDesign();
  return graphics
    .filter((g) => g.module === module)
    .map((g) => <GraphicOnModule key={g.id} drawn={g} ink={ink} />);
}

export const KIND_WORDS: Record<Graphic["kind"], string> = {
  bracket: "Bracket",
  box: "Box",
  text: "Text",
  placard: "Placard",
  symbol: "Symbol",
};

function GraphicOnModule({ drawn, ink }: { drawn: Graphic; ink: string }) {
  const view = useDesign();
  const shift = useGraphicShift(view, drawn.id);
  const selected = useSession((s) => s.selection.includes(drawn.id));
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = drawn.room;
  const words = drawn.words.map((w) => w.text).join(" ");
  return (
    <g
      id={`graphic-${drawn.id}`}
      data-fn={drawn.id}
      className="part"
      role="option"
      aria-selected={selected}
      aria-label={`${KIND_WORDS[drawn.kind]} ${words}`.trim()}
      transform={shift ? `translate(${shift.x} ${shift.y})` : undefined}
    >
      <rect
        data-touch={drawn.id}
        x={x0}
        y={y0}
        width={x1 - x0}
        height={y1 - y0}
        fill="transparent"
        pointerEvents={drawn.kind === "box" ? "none" : "all"}
      />
      {drawn.kind === "box" && <path d={drawn.lines} stroke="transparent" strokeWidth={4} fill="none" />}
      <path d={drawn.lines} stroke={ink} strokeWidth={0.6} strokeLinecap="square" fill="none" />
      {drawn.words.map((word, n) => (
        <WordPath key={n} word={word} ink={ink} />
      ))}
      {selected && (
        <g fill="none" pointerEvents="none">
          <rect
            x={x0 - 1.5}
            y={y0 - 1.5}
            width={x1 - x0 + 3}
            height={y1 - y0 + 3}
            rx={1}
            stroke="var(--casing)"
            strokeWidth={1.3}
          />
          <rect
            x={x0 - 1.5}
            y={y0 - 1.5}
            width={x1 - x0 + 3}
            height={y1 - y0 + 3}
            rx={1}
            stroke="var(--chosen)"
            strokeWidth={0.7}
          />
        </g>
      )}
    </g>
  );
}
