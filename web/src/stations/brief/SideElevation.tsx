/** The panel from the side: eye, plate, bodies, what is behind, and the knees. The eye and the knee are dragged. */
import { type BriefChanges, setSeat } from "../../api/commands";
import type { BriefView, Command, DesignView } from "../../api/types";
import { useDragMm } from "../../canvas/useDragMm";
import { shown } from "../../ui/figures";

type Side = BriefView["side"];
type Brief = DesignView["design"]["brief"];
type Point = Side["plate"][number];

interface Props {
  side: Side;
  brief: Brief;
  set: (changes: BriefChanges) => Promise<unknown>;
  send: (command: Command) => Promise<unknown>;
}

const list = (points: readonly Point[]) => points.map((p) => `${p.x},${p.y}`).join(" ");

export function SideElevation({ side, brief, set, send }: Props) {
  const [low, high] = side.plate;
  if (!low || !high) return null;
  const knee = side.knees[1];
  const all = [
    ...side.plate,
    ...side.back,
    ...side.bodies.flatMap((b) => b.points),
    ...(side.eye ? [side.eye] : []),
    ...(knee
      ? [
          { x: knee.x - 330, y: knee.y + 70 },
          { x: knee.x + 70, y: knee.y - 150 },
        ]
      : []),
  ];
  const x0 = Math.min(...all.map((p) => p.x)) - 60;
  const y0 = Math.min(...all.map((p) => p.y)) - 40;
  const y1 = Math.max(...all.map((p) => p.y)) + 40;
  const reach = Math.max(...all.map((p) => p.x));
  const words = 80; // pixels for the depth, which stands behind everything
  const s = Math.max((reach - x0) / (340 - words), (y1 - y0) / 210);
  const x1 = reach + words * s;
  const middle = { x: (low.x + high.x) / 2, y: (low.y + high.y) / 2 };
  return (
    <svg
      className="mt-2 h-[210px] w-full touch-none"
      viewBox={`${x0} ${-y1} ${x1 - x0} ${y1 - y0}`}
      role="group"
      aria-label="Side elevation"
    >
      <g transform="scale(1 -1)">
        {side.knees.length > 0 && <Knees side={side} brief={brief} send={send} />}
        <polyline
          points={list(side.back)}
          stroke="var(--faint)"
          strokeWidth={s}
          strokeDasharray={`${4 * s} ${3 * s}`}
          fill="none"
        />
        {side.bodies.map((b) => (
          <polygon
            key={b.id}
            points={list(b.points)}
            fill="#8C9499"
            stroke="var(--ink)"
            strokeWidth={0.4 * s}
          />
        ))}
        {side.boxes.map((b) => (
          <polygon
            key={b.id}
            points={list(b.points)}
            fill="#E0B050"
            fillOpacity={0.4}
            stroke="#8A5A00"
            strokeWidth={0.8 * s}
          />
        ))}
        <polyline points={list(side.plate)} stroke="var(--ink)" strokeWidth={4 * s} fill="none" />
        {side.eye && <Eye eye={side.eye} middle={middle} s={s} brief={brief} set={set} />}
      </g>
      <g fontFamily="var(--font-mono)" fontSize={11 * s} fill="var(--ink)">
        <text x={(side.back[1]?.x ?? 0) + 6 * s} y={-(side.back[1]?.y ?? 0)}>
          {shown(brief.depth, 0)} deep
        </text>
        {side.clearance != null && knee && (
          <text
            x={knee.x - 60}
            y={-knee.y - 76}
            textAnchor="end"
            fill={side.clearance < (brief.seat?.clear ?? 0) ? "var(--must)" : "var(--ok)"}
          >
            {shown(side.clearance, 0)} to the knee
          </text>
        )}
      </g>
    </svg>
  );
}

interface EyeProps {
  eye: Point;
  middle: Point;
  s: number;
  brief: Brief;
  set: Props["set"];
}

function Eye({ eye, middle, s, brief, set }: EyeProps) {
  const { shift, grip } = useDragMm(({ dx, dy }) => {
    const to = { x: eye.x + dx - middle.x, y: eye.y + dy - middle.y };
    return set({ eye_distance: Math.round(Math.hypot(to.x, to.y)), eye_height: Math.round(to.y) });
  });
  const at = { x: eye.x + (shift?.dx ?? 0), y: eye.y + (shift?.dy ?? 0) };
  return (
    <g>
      <path
        d={`M${at.x} ${at.y}L${middle.x} ${middle.y}`}
        stroke="var(--petrol)"
        strokeWidth={s}
        strokeDasharray={`${4 * s} ${3 * s}`}
      />
      <circle
        cx={at.x}
        cy={at.y}
        r={5 * s}
        fill="var(--petrol)"
        role="button"
        tabIndex={0}
        aria-label={`Eye, ${shown(brief.eye_distance ?? 0, 0)} mm away: arrow keys move it`}
        className="cursor-move"
        {...grip}
      />
      <text
        transform={`translate(${at.x + 10 * s} ${at.y}) scale(1 -1)`}
        fontFamily="var(--font-sans)"
        fontSize={11 * s}
        fill="var(--petrol)"
        pointerEvents="none"
      >
        eye, {shown(Math.hypot(at.x - middle.x, at.y - middle.y), 0)} mm
      </text>
    </g>
  );
}

function Knees({ side, brief, send }: Omit<Props, "set">) {
  const { shift, grip } = useDragMm(({ dx, dy }) => {
    if (!brief.seat) return undefined;
    const { seat } = brief;
    return send(
      setSeat({
        knee_reach: Math.round(seat.knee_reach + dx),
        knee_height: Math.max(10, Math.round(seat.knee_height + dy)),
      }),
    );
  });
  const [, knee] = side.knees;
  const points = side.knees.map((p) => ({
    x: p.x + (shift?.dx ?? 0),
    y: p.y + (p === knee || p === side.knees[0] ? (shift?.dy ?? 0) : 0),
  }));
  return (
    <polyline
      points={list(points)}
      fill="none"
      stroke="var(--rule)"
      strokeWidth={130}
      strokeLinecap="round"
      strokeLinejoin="round"
      role="button"
      tabIndex={0}
      aria-label="Knees: arrow keys move them"
      className="cursor-move"
      {...grip}
    />
  );
}
