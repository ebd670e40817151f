/** One layer in plan: what is left of it, its least bridges with their lengths, pieces that would break off; or how
 * far the plate gives under each control. The line of the section is drawn and dragged here. */
import { useRef } from "react";
import type { StackLayer, StackView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { useSession } from "../../app/session";
import { Canvas } from "../../canvas/Canvas";
import { followPointer } from "../../canvas/gesture";
import { Tag } from "../../canvas/Tag";
import { useCamera } from "../../canvas/useCamera";
import { many, shown } from "../../ui/figures";
import { BridgeLines } from "./BridgeLines";
import { SectionLine } from "./SectionLine";
import { type Line, useStack } from "./store";

interface Props {
  stack: StackView;
  layer: StackLayer;
  press: boolean;
}

export function PlanDrawing({ stack, layer, press }: Props) {
  const { id, design } = useDesign();
  const frame = useRef<HTMLDivElement>(null);
  const { lines, draw } = useStack();
  const { selection, select } = useSession();
  const extent = { x: 0, y: 0, width: stack.width, height: stack.height };
  const camera = useCamera(frame, extent, { name: `plan ${id} ${stack.module}`, room: 40 });
  const scale = camera.viewport.scale;
  const s = 1 / scale;
  const line = lines[stack.module] ?? stack.line;
  const drawLine = (event: React.PointerEvent) => {
    if (event.button !== 0 || (event.target as Element).closest("[data-grip], button")) return;
    const from = camera.at(event);
    followPointer(event.nativeEvent, {
      move: (to) => {
        const next = squared({ x0: from.x, y0: from.y, x1: camera.at(to).x, y1: camera.at(to).y });
        if (Math.hypot(next.x1 - next.x0, next.y1 - next.y0) * scale > 8) draw(stack.module, next);
      },
      end: () => undefined,
    });
  };
  const names = new Map(design.functions.map((f) => [f.id, f.name]));
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-64"
        onPress={drawLine}
        drawing={{
          role: "group",
          "aria-label": press ? "How far the plate gives" : `${layer.layer.name} in plan`,
        }}
      >
        <path
          d={layer.path}
          fill={layer.layer.colour}
          fillRule="evenodd"
          stroke="var(--body-edge)"
          strokeWidth={s}
        />
        {stack.mounted.map(({ board, path }) => (
          <path
            key={board.id}
            d={path}
            fill="none"
            stroke="var(--on-reach)"
            strokeWidth={1.5 * s}
            strokeDasharray={`${6 * s} ${4 * s}`}
            pointerEvents="none"
          >
            <title>{board.name}</title>
          </path>
        ))}
        {!press && <BridgeLines layer={layer} scale={scale} selection={selection} />}
        {press &&
          stack.bends.map((bend) => (
            <g
              key={bend.function}
              className="cursor-pointer"
              onClick={() => select([bend.function])}
              data-bend={bend.function}
            >
              <title>{names.get(bend.function)}</title>
              <circle
                cx={bend.x}
                cy={bend.y}
                r={5 + 60 * bend.sag * s}
                fill={bend.sag > stack.bend_most ? "var(--on-judge)" : "var(--on-ok)"}
                fillOpacity={0.35}
                stroke={bend.sag > stack.bend_most ? "var(--on-judge)" : "var(--on-ok)"}
                strokeWidth={1.5 * s}
              />
              <Tag
                x={bend.x}
                y={bend.y}
                scale={scale}
                text={shown(bend.sag, 2)}
                ink={bend.sag > stack.bend_most ? "var(--casing)" : "var(--on-ok)"}
                ground={bend.sag > stack.bend_most ? "var(--on-judge)" : "var(--casing)"}
              />
            </g>
          ))}
        <SectionLine line={line} scale={scale} onChange={(next) => draw(stack.module, next)} />
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 text-[11px] text-faint">
        <p className="min-w-0 flex-1 truncate">
          {press
            ? stack.bends.length > 0
              ? `Millimetres under a press; ${shown(stack.bend_most)} at most. Between the outermost screws, simply supported`
              : "Nothing here is pressed, or there are fewer than three screws"
            : `${many(layer.bridges.filter((b) => b.thin).length, "bridge")} under ${shown(layer.need)}; drag across to move the section`}
        </p>
        <Looking camera={camera} />
      </div>
    </>
  );
}

/** A line that is nearly level, or nearly upright, is. */
function squared(line: Line): Line {
  const dx = Math.abs(line.x1 - line.x0);
  const dy = Math.abs(line.y1 - line.y0);
  const round = (v: number) => Math.round(v * 2) / 2;
  const made = { x0: round(line.x0), y0: round(line.y0), x1: round(line.x1), y1: round(line.y1) };
  if (dy < dx * 0.06) return { ...made, y1: made.y0 };
  if (dx < dy * 0.06) return { ...made, x1: made.x0 };
  return made;
}
