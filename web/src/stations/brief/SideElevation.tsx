/** The panel from the side: eye, plate, bodies, what is behind, and the knees. Eye, knee and depth are dragged or typed. */
import { useRef } from "react";
import { type BriefChanges, setSeat } from "../../api/commands";
import type { BriefView, Command, DesignView } from "../../api/types";
import { type Extent, type PointPx, px, toPx } from "../../canvas/camera";
import { Canvas } from "../../canvas/Canvas";
import { Dim } from "../../canvas/Dim";
import { useCamera } from "../../canvas/useCamera";
import { useDragMm } from "../../canvas/useDragMm";
import { shown } from "../../ui/figures";

type Side = BriefView["side"];
type Brief = DesignView["design"]["brief"];
type Point = Side["plate"][number];

interface Props {
  /** Names the design, for where one looked last. */
  name: string;
  side: Side;
  brief: Brief;
  set: (changes: BriefChanges) => Promise<unknown>;
  send: (command: Command) => Promise<unknown>;
}

const list = (points: readonly Point[]) => points.map((p) => `${p.x},${p.y}`).join(" ");

/** Everything that is drawn, with room for what stands beside it. */
function extentOf(side: Side): Extent {
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
  const xs = all.map((p) => p.x);
  const ys = all.map((p) => p.y);
  const x = Math.min(...xs);
  const y = Math.min(...ys);
  return { x, y, width: (Math.max(...xs) - x) * 1.25, height: Math.max(...ys) - y };
}

const beside = (at: PointPx, dx: number, dy: number): PointPx => ({ x: px(at.x + dx), y: px(at.y + dy) });

export function SideElevation({ name, side, brief, set, send }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const camera = useCamera(frame, extentOf(side), { name: `side ${name}`, room: 18 });
  const v = camera.viewport;
  const s = 1 / v.scale;
  const [low, high] = side.plate;
  if (!low || !high) return null;
  const knee = side.knees[1];
  const middle = { x: (low.x + high.x) / 2, y: (low.y + high.y) / 2 };
  const back = side.back[1] ?? high;
  return (
    <div className="mt-2 flex h-52 min-[1500px]:h-72">
      <Canvas
        camera={camera}
        frame={frame}
        offersFit
        drawing={{ role: "group", "aria-label": "Side elevation" }}
        over={
          <>
            <Dim
              at={beside(toPx(v, back.x, back.y), 34, 0)}
              label="Free depth"
              value={brief.depth}
              least={1}
              after=" deep"
              onCommit={(depth) => void set({ depth })}
            />
            {side.eye && brief.eye_distance != null && (
              <Dim
                at={beside(toPx(v, side.eye.x, side.eye.y), 46, 0)}
                label="Eye to middle"
                value={brief.eye_distance}
                least={50}
                before="eye "
                className="text-petrol!"
                onCommit={(eye_distance) => void set({ eye_distance })}
              />
            )}
            {side.clearance != null && knee && (
              <p
                className={`num pointer-events-none absolute ${side.clearance < (brief.seat?.clear ?? 0) ? "text-must" : "text-ok"}`}
                style={{ left: toPx(v, knee.x - 330, 0).x, top: toPx(v, 0, knee.y + 70).y - 16 }}
              >
                {shown(side.clearance)} mm to the knee
              </p>
            )}
          </>
        }
      >
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
            fill="var(--body)"
            stroke="var(--ink)"
            strokeWidth={0.4 * s}
          />
        ))}
        {side.boxes.map((b) => (
          <polygon
            key={b.id}
            points={list(b.points)}
            fill="var(--bar)"
            fillOpacity={0.4}
            stroke="var(--bar-edge)"
            strokeWidth={0.8 * s}
          />
        ))}
        <polyline points={list(side.plate)} stroke="var(--ink)" strokeWidth={4 * s} fill="none" />
        {side.eye && <Eye eye={side.eye} middle={middle} s={s} brief={brief} set={set} />}
      </Canvas>
    </div>
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
        r={6 * s}
        fill="var(--petrol)"
        role="button"
        tabIndex={0}
        aria-label={`Eye, ${shown(brief.eye_distance ?? 0)} mm away: arrow keys move it`}
        className="cursor-move"
        {...grip}
      />
    </g>
  );
}

function Knees({ side, brief, send }: Pick<Props, "side" | "brief" | "send">) {
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
