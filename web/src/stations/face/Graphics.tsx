/** Brackets, boxes, texts, placards and symbols on the plate; what does not follow functions is dragged. */
import type { DesignView, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useDragMm } from "../../panel/useDragMm";
import { WordPath } from "../../panel/WordPath";

type Graphic = DesignView["graphics"][number];

export function Graphics({ module, ink }: { module: ModuleView; ink: string }) {
  const { graphics } = useDesign();
  return graphics
    .filter((g) => g.module === module.id)
    .map((g) => <GraphicOnModule key={g.id} drawn={g} ink={ink} />);
}

function GraphicOnModule({ drawn, ink }: { drawn: Graphic; ink: string }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const graphic = view.design.graphics.find((g) => g.id === drawn.id);
  const { shift, grip } = useDragMm(({ dx, dy }) => {
    if (!graphic) return;
    const follows = graphic.kind === "bracket" && graphic.functions.length > 0;
    const across = follows ? {} : { x: graphic.x + dx };
    void send([{ do: "edit_graphic", graphic: graphic.id, ...across, y: graphic.y + dy }]);
  });
  const [x0 = 0, y0 = 0, x1 = 0, y1 = 0] = drawn.room;
  return (
    <g
      role="option"
      aria-selected="false"
      tabIndex={-1}
      aria-label={`${drawn.kind} ${drawn.words.map((w) => w.text).join(" ")}`}
      transform={shift ? `translate(${shift.dx} ${shift.dy})` : undefined}
      className="cursor-move"
      onPointerDown={(event) => {
        event.stopPropagation();
        grip.onPointerDown(event);
      }}
      onKeyDown={grip.onKeyDown}
    >
      <rect
        x={x0}
        y={y0}
        width={x1 - x0}
        height={y1 - y0}
        fill="transparent"
        pointerEvents={drawn.kind === "box" ? "none" : "all"}
      />
      <path d={drawn.lines} stroke={ink} strokeWidth={0.6} strokeLinecap="square" fill="none" />
      {drawn.words.map((word, n) => (
        <WordPath key={n} word={word} ink={ink} />
      ))}
    </g>
  );
}
