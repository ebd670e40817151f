/** Shapes of the core as SVG elements, in millimetres, y up. */
import type { SVGProps } from "react";
import type { FrontShape, Shape } from "../api/types";

/** So much of a window's width its digits or letters take. */
const FILLED = 0.86;
/** A digit's own width with the air beside it, in parts of its size. */
const DIGIT = 0.72;

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
  if (shape.kind === "path") {
    return (
      <g {...rest}>
        <path d={pathOf(shape.points)} transform={`translate(${x} ${y}) rotate(${turn})`} />
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

/** Digits stand each in its own cell, points and colons between two; letters share the width. */
function Digits({ text, shape, x, y }: { text: string; shape: Shape; x: number; y: number }) {
  const { width, height } = reach(shape);
  const cells = [...text].filter((letter) => !/[.:]/.test(letter)).length;
  const cell = (width * FILLED) / cells;
  const size = height * 1.05;
  if (/^[\d\u2007.:]+$/.test(text)) {
    let before = 0;
    const places = [...text].map((letter) => (/[.:]/.test(letter) ? before : before++ + 0.5));
    return (
      <text
        transform={`translate(${x} ${y}) scale(1 -1)`}
        x={places.map((place) => (place - cells / 2) * cell).join(" ")}
        className="seg"
        fontSize={Math.min(size, cell / DIGIT)}
        textAnchor="middle"
        dominantBaseline="central"
        aria-hidden="true"
      >
        {text}
      </text>
    );
  }
  return (
    <text
      transform={`translate(${x} ${y}) scale(1 -1)`}
      className="seg"
      fontSize={size}
      textAnchor="middle"
      dominantBaseline="central"
      textLength={shape.kind === "rect" && text.length > 2 ? width * FILLED : undefined}
      aria-hidden="true"
    >
      {text}
    </text>
  );
}

interface Corner {
  x: number;
  y: number;
  bulge: number;
}

/** Corners with bulges as path data; a bulge is the tangent of a quarter of its arc. */
export function pathOf(points: readonly Corner[]): string {
  const first = points[0];
  if (!first) return "";
  const legs = points.map((a, n) => {
    const b = points[(n + 1) % points.length] ?? first;
    if (Math.abs(a.bulge) < 1e-9) return `L${b.x} ${b.y}`;
    const chord = Math.hypot(b.x - a.x, b.y - a.y);
    const radius = (chord * (1 + a.bulge ** 2)) / (4 * Math.abs(a.bulge));
    return `A${radius} ${radius} 0 ${Math.abs(a.bulge) > 1 ? 1 : 0} ${a.bulge > 0 ? 1 : 0} ${b.x} ${b.y}`;
  });
  return `M${first.x} ${first.y}${legs.join("")}Z`;
}

/** Width and height over all; of a path, over its corners. */
export function reach(shape: Shape): { width: number; height: number } {
  if (shape.kind === "circle") return { width: shape.diameter, height: shape.diameter };
  if (shape.kind === "rect") return { width: shape.width, height: shape.height };
  const xs = shape.points.map((p) => p.x);
  const ys = shape.points.map((p) => p.y);
  return { width: Math.max(...xs) - Math.min(...xs), height: Math.max(...ys) - Math.min(...ys) };
}
