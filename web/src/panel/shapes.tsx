/** Shapes of the core as SVG elements, in millimetres, y up. */
import type { SVGProps } from "react";
import type { FrontShape, Shape } from "../api/types";

interface ShapeProps extends SVGProps<SVGGElement> {
  shape: Shape;
  x?: number;
  y?: number;
  turn?: number;
  grow?: number;
}

/** A circle or a rounded rectangle about (x, y), `grow` mm larger all round. */
export function Outline({ shape, x = 0, y = 0, turn = 0, grow = 0, ...rest }: ShapeProps) {
  if (shape.kind === "circle") {
    return (
      <g {...rest}>
        <circle cx={x} cy={y} r={shape.diameter / 2 + grow} />
      </g>
    );
  }
  const width = shape.width + 2 * grow;
  const height = shape.height + 2 * grow;
  return (
    <g {...rest}>
      <rect
        x={x - width / 2}
        y={y - height / 2}
        width={width}
        height={height}
        rx={shape.radius + grow}
        transform={turn ? `rotate(${turn} ${x} ${y})` : undefined}
      />
    </g>
  );
}

/** A part's front, in its own coordinates. */
export function PartFront({ front }: { front: readonly FrontShape[] }) {
  return front.map((piece, n) => (
    <g key={n}>
      <Outline
        shape={piece.shape}
        x={piece.x}
        y={piece.y}
        turn={piece.turn}
        fill={piece.fill}
        stroke={piece.edge ?? "none"}
        strokeWidth={0.5}
      />
      {piece.text && <Digits text={piece.text} shape={piece.shape} x={piece.x} y={piece.y} />}
    </g>
  ));
}

function Digits({ text, shape, x, y }: { text: string; shape: Shape; x: number; y: number }) {
  const height = shape.kind === "rect" ? shape.height : shape.diameter;
  return (
    <text
      transform={`translate(${x} ${y}) scale(1 -1)`}
      className="seg"
      fontSize={height * 1.05}
      textAnchor="middle"
      dominantBaseline="central"
      textLength={shape.kind === "rect" ? shape.width * 0.86 : undefined}
      aria-hidden="true"
    >
      {text}
    </text>
  );
}

export const reach = (shape: Shape): { width: number; height: number } =>
  shape.kind === "circle"
    ? { width: shape.diameter, height: shape.diameter }
    : { width: shape.width, height: shape.height };
