/** A handle at the corner of the selected part: dragged round it, the part turns in steps of 15°, with Ctrl of one. */
import { useState } from "react";
import { turn } from "../../api/commands";
import type { Fn, Lettering, Part } from "../../api/types";
import { toPx } from "../../canvas/camera";
import { followPointer } from "../../canvas/gesture";
import { useSession } from "../../app/session";
import { reach } from "../../panel/shapes";
import type { BoardContext } from "./held";
import type { PlateOnBoard } from "./plates";

interface Props {
  fn: Fn;
  part: Part;
  lettering: Lettering | undefined;
  plate: PlateOnBoard;
  context: BoardContext;
}

/** How far (pixels) it stands off, and in which directions of the part (degrees) it may. */
const AWAY = 10;
const CORNERS = [-45, 45, -135, 135] as const;

/** The corner of the part that is turned away from its name. */
function cornerFor(turned: number, words: Lettering | undefined): number {
  const name = words?.words.find((word) => word.role === "name");
  const side = (name?.y ?? 1) < 0 ? 1 : -1;
  return CORNERS.find((corner) => Math.sin(((turned + corner) * Math.PI) / 180) * side > 0.1) ?? CORNERS[0];
}

export function TurnHandle({ fn, part, lettering, plate, context: { camera, changes } }: Props) {
  const doing = useSession((s) => s.doing);
  const [turning, setTurning] = useState(false);
  if (!fn.place || (doing !== null && !turning)) return null;
  const { place } = fn;
  const v = camera.viewport;
  const { width, height } = reach(part.cover);
  const out = (Math.hypot(width, height) / 2) * v.scale + AWAY;
  const centre = toPx(v, plate.x + place.x, plate.y + place.y);
  const corner = cornerFor(place.turn, lettering);
  const angle = ((place.turn + corner) * Math.PI) / 180;
  const at = { x: centre.x + out * Math.cos(angle), y: centre.y - out * Math.sin(angle) };
  const pressed = (event: React.PointerEvent) => {
    if (event.button !== 0) return;
    event.stopPropagation();
    const inner = document.querySelector(`#part-${fn.id} > g`);
    let by = 0;
    const show = (degrees: number) => inner?.setAttribute("transform", `rotate(${place.turn + degrees})`);
    const over = () => {
      setTurning(false);
      useSession.getState().set({ doing: null });
    };
    followPointer(event.nativeEvent, {
      begin: () => setTurning(true),
      move: (now) => {
        const p = camera.at(now);
        const to = (Math.atan2(p.y - plate.y - place.y, p.x - plate.x - place.x) * 180) / Math.PI - corner;
        const step = now.ctrlKey ? 1 : 15;
        by = Math.round(to / step) * step - place.turn;
        by = ((((by + 180) % 360) + 360) % 360) - 180;
        show(by);
        useSession
          .getState()
          .set({ doing: `Turning ${fn.name} to ${(((place.turn + by) % 360) + 360) % 360}°` });
      },
      end: () => {
        over();
        if (by !== 0) void changes.send([turn([fn.id], by)]);
      },
      cancel: () => {
        over();
        show(0);
      },
    });
  };
  return (
    <button
      type="button"
      tabIndex={-1}
      title="Drag to turn; R turns by 15°"
      aria-label={`Turn ${fn.name}`}
      className="absolute grid size-6 -translate-1/2 cursor-grab touch-none place-items-center rounded-full"
      style={{ left: at.x, top: at.y }}
      onPointerDown={pressed}
    >
      <svg width="18" height="18" viewBox="-9 -9 18 18" aria-hidden="true">
        <circle r="7.5" fill="var(--casing)" stroke="var(--chosen)" strokeWidth="1.6" />
        <path
          d="M-3.4 1.2A3.6 3.6 0 1 1 0 3.6M-5.6 -.6L-3.4 1.6L-1.2 -.6"
          fill="none"
          stroke="var(--chosen)"
          strokeWidth="1.5"
        />
      </svg>
    </button>
  );
}
