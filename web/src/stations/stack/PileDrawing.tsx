/** The layers as an oblique pile in their real colours, front on top, with what holds them between. */
import { Fragment, useRef } from "react";
import type { StackLayer, StackView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Looking } from "../../app/Looking";
import { Canvas } from "../../canvas/Canvas";
import { useCamera } from "../../canvas/useCamera";
import { inkOn } from "../../panel/Plate";
import { WordPath } from "../../panel/WordPath";
import { many } from "../../ui/figures";
import { useStack } from "./store";

/** How far the far edge leans to the right, and how high a millimetre looks that lies away from us. */
const LEAN = 0.42;
const FLAT = 0.46;
/** From one layer to the next, in heights of the module. */
const APART = 0.3;

export function PileDrawing({ stack, chosen }: { stack: StackView; chosen: string }) {
  const { id, modules } = useDesign();
  const set = useStack((s) => s.set);
  const frame = useRef<HTMLDivElement>(null);
  const { width, height, layers } = stack;
  const drop = Math.max(height * APART, 18);
  const levels = layers.length + (stack.mounted.length > 0 ? 1 : 0);
  const low = -(levels - 1) * drop - 4;
  const extent = { x: 0, y: low, width: width + LEAN * height, height: FLAT * height - low };
  const camera = useCamera(frame, extent, { name: `pile ${id} ${stack.module} ${levels}`, room: 26 });
  const s = 1 / camera.viewport.scale;
  const fixings = modules.find((m) => m.id === stack.module)?.fixings ?? [];
  const at = (x: number, y: number, level: number) => ({ x: x + LEAN * y, y: FLAT * y - level * drop });
  const behind = layers.length;
  const oblique = (level: number) => `matrix(1 0 ${LEAN} ${FLAT} 0 ${-level * drop})`;
  /** From the last to the first, so that what lies in front is drawn over it. */
  const order = [...layers.keys()].reverse();
  return (
    <>
      <Canvas
        camera={camera}
        frame={frame}
        className="max-[900px]:h-64"
        drawing={{ role: "group", "aria-label": `${many(layers.length, "layer")}, the front on top` }}
      >
        {stack.mounted.length > 0 && (
          <g transform={oblique(behind)}>
            {stack.mounted.map(({ board, path }) => (
              <path
                key={board.id}
                d={path}
                fill="var(--board)"
                stroke="var(--shadow)"
                strokeOpacity={0.6}
                strokeWidth={s}
              >
                <title>{board.name}</title>
              </path>
            ))}
          </g>
        )}
        {stack.mounted.flatMap(({ board, holes, path }) =>
          holes.map(({ x, y }, n) => (
            <Rod
              key={`${board.id} ${n} ${path.length}`}
              from={at(x, y, behind)}
              to={at(x, y, behind - 1)}
              s={s}
            />
          )),
        )}
        {order.map((level) => {
          const layer = layers[level];
          const before = layers[level - 1];
          if (!layer) return null;
          return (
            <Fragment key={layer.layer.id}>
              <Sheet
                layer={layer}
                transform={oblique(level)}
                chosen={layer.layer.id === chosen}
                s={s}
                onChoose={() => set({ layer: layer.layer.id })}
              />
              {level === 0 && <Legends stack={stack} colour={layer.layer.colour} transform={oblique(0)} />}
              {before &&
                fixings.map((f) => (
                  <Rod
                    key={f.name}
                    from={at(f.x, f.y, level)}
                    to={at(f.x, f.y, level - 1)}
                    s={s}
                    wide={layer.layer.gap > 0 ? stack.screw_diameter * 1.8 : 0}
                    tall={layer.layer.gap}
                  />
                ))}
            </Fragment>
          );
        })}
        <g transform={oblique(0)}>
          {fixings.map((f) => (
            <circle
              key={f.name}
              cx={f.x}
              cy={f.y}
              r={f.head / 2}
              fill="var(--metal)"
              stroke="var(--metal-edge)"
              strokeWidth={s}
            />
          ))}
        </g>
      </Canvas>
      <div className="flex min-h-9 items-center gap-3 border-t border-rule bg-card px-4 text-[11px] text-faint">
        <p className="min-w-0 flex-1 truncate">
          Press a sheet to see what it holds; lines are screws, brass is standoffs
        </p>
        <Looking camera={camera} real={false} />
      </div>
    </>
  );
}

interface SheetProps {
  layer: StackLayer;
  transform: string;
  chosen: boolean;
  s: number;
  onChoose: () => void;
}

function Sheet({ layer, transform, chosen, s, onChoose }: SheetProps) {
  const { colour, opacity, name, role } = layer.layer;
  const light = opacity === "clear" ? 0.55 : opacity === "translucent" || role === "diffuser" ? 0.93 : 1;
  return (
    <g className="cursor-pointer" onClick={onChoose}>
      <title>{name}</title>
      <g transform={`translate(0 ${-layer.layer.thickness})`}>
        <path d={layer.path} transform={transform} fill={colour} fillRule="evenodd" />
        <path
          d={layer.path}
          transform={transform}
          fill="var(--shadow)"
          fillOpacity={0.35}
          fillRule="evenodd"
        />
      </g>
      <path
        d={layer.path}
        transform={transform}
        fill={colour}
        fillOpacity={light}
        fillRule="evenodd"
        stroke={chosen ? "var(--chosen)" : "var(--shadow)"}
        strokeOpacity={chosen ? 1 : 0.5}
        strokeWidth={(chosen ? 2 : 0.8) * s}
        vectorEffect="none"
      />
    </g>
  );
}

/** The words on the face, as they are cut. */
function Legends({ stack, colour, transform }: { stack: StackView; colour: string; transform: string }) {
  const { design, lettering } = useDesign();
  const ink = inkOn(colour);
  return (
    <g transform={transform} fill={ink} pointerEvents="none">
      {design.functions.map((fn) => {
        const letters = lettering[fn.id];
        if (!fn.place || fn.place.module !== stack.module || !letters || letters.inside) return null;
        return (
          <g key={fn.id} transform={`translate(${fn.place.x} ${fn.place.y})`}>
            {letters.words.map((word, n) => (
              <WordPath key={n} word={word} ink={ink} />
            ))}
          </g>
        );
      })}
    </g>
  );
}

interface RodProps {
  from: { x: number; y: number };
  to: { x: number; y: number };
  s: number;
  wide?: number;
  tall?: number;
}

/** A screw's way between two layers; where a standoff is, the standoff. */
function Rod({ from, to, s, wide = 0, tall = 0 }: RodProps) {
  const middle = (from.y + to.y) / 2;
  const high = Math.min(tall, (to.y - from.y) * 0.8);
  return (
    <g pointerEvents="none">
      <path
        d={`M${from.x} ${from.y}L${to.x} ${to.y}`}
        stroke="var(--body-edge)"
        strokeWidth={s}
        strokeDasharray={`${4 * s} ${3 * s}`}
      />
      {high > 0 && (
        <rect
          x={from.x - wide / 2}
          y={middle - high / 2}
          width={wide}
          height={high}
          fill="var(--brass)"
          stroke="var(--brass-dark)"
          strokeWidth={s}
        />
      )}
    </g>
  );
}
