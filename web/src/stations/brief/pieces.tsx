/** What of the front elevation is moved and sized, on the drawing or by its typed dimensions: modules and keep-outs. */
import type { Command, DesignView, KeepOut, ModuleView } from "../../api/types";
import { useChanges } from "../../app/design";
import { type PointPx, px } from "../../canvas/camera";
import { Dim } from "../../canvas/Dim";
import { type DragMm, useDragMm } from "../../canvas/useDragMm";
import { shown } from "../../ui/figures";

/** Something of the elevation that can be moved and sized. */
export interface Piece {
  id: string;
  name: string;
  x: number;
  y: number;
  width: number;
  height: number;
  set: (changes: Partial<Pick<Piece, "x" | "y" | "width" | "height">>) => Command;
}

export const ofModule = (module: ModuleView): Piece => ({
  ...module,
  set: ({ width, height, ...at }) =>
    width === undefined && height === undefined
      ? { do: "edit_module", module: module.id, ...at }
      : {
          do: "resize_module",
          module: module.id,
          ...(width === undefined ? {} : { width }),
          ...(height === undefined ? {} : { height }),
        },
});

export const ofKeepOut = (box: KeepOut): Piece => ({
  ...box,
  set: (changes) => ({ do: "edit_keepout", keepout: box.id, ...changes }),
});

export const below = (at: PointPx, by: number): PointPx => ({ ...at, y: px(at.y + by) });

const rounded = (value: number) => Math.round(value * 100) / 100;

/** Pixels from the middle of a thin piece, where its name stands, to the dimensions over and under it. */
const CLEAR = 19;

interface DimsProps {
  piece: Piece;
  at: (x: number, y: number) => PointPx;
  send: (command: Command) => void;
}

/** The four dimensions of what is chosen, typed on the drawing. */
export function Dims({ piece, at, send }: DimsProps) {
  const { name, x, y, width, height, set } = piece;
  const middle = at(x, y + height / 2).y;
  const over = { x: at(x + width / 2, y).x, y: px(Math.min(at(x, y + height).y - 9, middle - CLEAR)) };
  const under = { x: at(x, y).x, y: px(Math.max(at(x, y).y + 9, middle + CLEAR)) };
  return (
    <>
      <Dim
        at={over}
        label={`${name}, width`}
        value={width}
        least={1}
        onCommit={(mm) => send(set({ width: mm }))}
      />
      <Dim
        at={at(x + width, y + height / 2)}
        label={`${name}, height`}
        value={height}
        least={1}
        onCommit={(mm) => send(set({ height: mm }))}
      />
      <Dim
        at={under}
        label={`${name}, x`}
        before="x "
        value={x}
        least={-5000}
        onCommit={(mm) => send(set({ x: mm }))}
      />
      <Dim
        at={at(x, y + height / 2)}
        label={`${name}, y`}
        before="y "
        value={y}
        least={-5000}
        onCommit={(mm) => send(set({ y: mm }))}
      />
    </>
  );
}

function usePieceDrag(piece: Piece, view: DesignView, onChoose: (id: string) => void): DragMm {
  const { send } = useChanges(view.id);
  const drag = useDragMm(({ dx, dy }) =>
    send([piece.set({ x: rounded(piece.x + dx), y: rounded(piece.y + dy) })]),
  );
  const { onPointerDown } = drag.grip;
  return {
    ...drag,
    grip: {
      ...drag.grip,
      onPointerDown: (event) => {
        event.stopPropagation();
        onChoose(piece.id);
        onPointerDown(event);
      },
    },
  };
}

interface PieceProps {
  view: DesignView;
  s: number;
  chosen: boolean;
  onChoose: (id: string) => void;
}

export function ModulePiece({ module, view, s, chosen, onChoose }: PieceProps & { module: ModuleView }) {
  const { shift, grip } = usePieceDrag(ofModule(module), view, onChoose);
  const at = { x: module.x + (shift?.dx ?? 0), y: module.y + (shift?.dy ?? 0) };
  const room = module.width / s / 6.6;
  const name = module.name.length > room ? `${module.name.slice(0, Math.max(1, room - 1))}…` : module.name;
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <path
        d={module.path}
        fill="var(--plate)"
        stroke={shift || chosen ? "var(--guide)" : "none"}
        strokeWidth={2.4 * s}
        role="button"
        tabIndex={0}
        aria-label={`${module.name}, x ${shown(at.x)}, y ${shown(at.y)}: arrow keys move it`}
        className="cursor-move"
        onFocus={() => onChoose(module.id)}
        {...grip}
      />
      <text
        transform={`translate(${module.width / 2} ${module.height * 0.72}) scale(${s} ${-s})`}
        fontFamily="var(--font-sans)"
        fontSize={12}
        textAnchor="middle"
        fill="var(--plate-ink)"
        pointerEvents="none"
      >
        {name}
      </text>
    </g>
  );
}

export function BoxPiece({ box, view, s, chosen, onChoose }: PieceProps & { box: KeepOut }) {
  const { shift, grip } = usePieceDrag(ofKeepOut(box), view, onChoose);
  const x = box.x + (shift?.dx ?? 0);
  const y = box.y + (shift?.dy ?? 0);
  const colour = box.side === "front" ? "var(--measure)" : "var(--bar)";
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={box.width}
        height={box.height}
        fill={colour}
        fillOpacity={0.35}
        stroke={chosen ? "var(--guide)" : colour}
        strokeWidth={(chosen ? 2 : 1.2) * s}
        strokeDasharray={chosen ? undefined : `${4 * s} ${2.5 * s}`}
        role="button"
        tabIndex={0}
        aria-label={`${box.name}, x ${shown(x)}, y ${shown(y)}: arrow keys move it`}
        className="cursor-move"
        onFocus={() => onChoose(box.id)}
        {...grip}
      />
      <text
        transform={`translate(${x + box.width / 2} ${y + box.height / 2}) scale(${s} ${-s})`}
        fontFamily="var(--font-sans)"
        fontSize={11}
        textAnchor="middle"
        dominantBaseline="central"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth={3.5}
        paintOrder="stroke"
        pointerEvents="none"
      >
        {box.name} {box.side === "front" ? "in front" : "behind"}, {shown(box.clear)} mm free
      </text>
    </g>
  );
}

/** Edges of what is chosen that are dragged to size it: the right one and the upper one. */
export function Handles({ piece, view, s }: { piece: Piece; view: DesignView; s: number }) {
  const { send } = useChanges(view.id);
  const wide = useDragMm(({ dx }) => send([piece.set({ width: Math.max(5, rounded(piece.width + dx)) })]));
  const high = useDragMm(({ dy }) => send([piece.set({ height: Math.max(5, rounded(piece.height + dy)) })]));
  const right = piece.x + piece.width + (wide.shift?.dx ?? 0);
  const top = piece.y + piece.height + (high.shift?.dy ?? 0);
  const stop = (grip: DragMm["grip"]): DragMm["grip"] => ({
    ...grip,
    onPointerDown: (event) => {
      event.stopPropagation();
      grip.onPointerDown(event);
    },
  });
  return (
    <g stroke="var(--guide)" strokeWidth={1.6 * s} fill="var(--casing)">
      <circle
        cx={right}
        cy={piece.y + piece.height * 0.2}
        r={5 * s}
        className="cursor-ew-resize"
        role="button"
        tabIndex={0}
        aria-label={`${piece.name}, right edge: arrow keys move it`}
        {...stop(wide.grip)}
      />
      <circle
        cx={piece.x + piece.width * 0.2}
        cy={top}
        r={5 * s}
        className="cursor-ns-resize"
        role="button"
        tabIndex={0}
        aria-label={`${piece.name}, upper edge: arrow keys move it`}
        {...stop(high.grip)}
      />
    </g>
  );
}
