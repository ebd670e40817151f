/** Picking points on the picture: a known length, a known rectangle, a second length, a circle. */
import { useState } from "react";
import type { ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/fields";
import { type Picking, useFace } from "./store";
import type { Reference, SetReference } from "./viewTypes";

const STEPS: readonly (readonly [Picking, string, number, string])[] = [
  ["scale", "Scale by a known length", 2, "Click both ends of a length you know; the longest is best."],
  [
    "square",
    "Square by a known rectangle",
    4,
    "Click its corners: lower left, lower right, upper right, upper left.",
  ],
  ["check", "Check with a second length", 2, "Click both ends of another length you know."],
  ["circle", "Trace a circle", 3, "Click three or more points of its edge."],
];

interface StepProps {
  module: ModuleView;
  reference: Reference;
  set: SetReference;
}

export function Steps({ module, reference, set }: StepProps) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const face = useFace();
  const [length, setLength] = useState(100);
  const [box, setBox] = useState({ x: 0, y: 0, width: module.width, height: module.height });
  const step = STEPS.find(([key]) => key === face.picking);
  const ready = step !== undefined && face.picked.length >= step[2];
  const done = () => {
    const [a, b, c, d] = face.picked;
    if (!a || !b) return;
    const known = { start: a, end: b, length };
    if (face.picking === "scale") set({ scale: known });
    if (face.picking === "check") set({ check: known });
    if (face.picking === "circle") {
      const { selection } = useSession.getState();
      const circle = { points: face.picked, function: selection[0] ?? null };
      void send([{ do: "trace_circle", reference: reference.id, ...circle }]);
    }
    if (face.picking === "square" && c && d) {
      const { x, y, width, height } = box;
      const corners = [
        { ...a, at_x: x, at_y: y },
        { ...b, at_x: x + width, at_y: y },
        { ...c, at_x: x + width, at_y: y + height },
        { ...d, at_x: x, at_y: y + height },
      ];
      set({ points: corners });
    }
    face.set({ picking: null, picked: [] });
  };
  return (
    <div className="mt-3 flex flex-col gap-1.5">
      {STEPS.map(([key, words]) => (
        <Button
          key={key}
          look={face.picking === key ? "solid" : "line"}
          aria-pressed={face.picking === key}
          onClick={() => face.set({ picking: face.picking === key ? null : key, picked: [] })}
        >
          {words}
        </Button>
      ))}
      {step && (
        <div className="rounded border border-petrol p-2" role="group" aria-label={step[1]}>
          <p>
            {step[3]} <span className="num text-faint">{face.picked.length} picked</span>
          </p>
          {(face.picking === "scale" || face.picking === "check") && (
            <LengthField label="Length" value={length} least={1} onCommit={setLength} />
          )}
          {face.picking === "square" && (
            <div className="mt-1 grid grid-cols-2 gap-1">
              {(["x", "y", "width", "height"] as const).map((key) => (
                <LengthField
                  key={key}
                  label={
                    key === "x" ? "Lower left, x" : key === "y" ? "y" : key === "width" ? "Wide" : "High"
                  }
                  value={box[key]}
                  least={key === "x" || key === "y" ? -5000 : 1}
                  onCommit={(mm) => setBox((now) => ({ ...now, [key]: mm }))}
                />
              ))}
            </div>
          )}
          <div className="mt-1.5 flex gap-1.5">
            <Button look="solid" disabled={!ready} onClick={done}>
              Apply
            </Button>
            <Button look="quiet" onClick={() => face.set({ picked: face.picked.slice(0, -1) })}>
              Remove last point
            </Button>
          </div>
        </div>
      )}
    </div>
  );
}
