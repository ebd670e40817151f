/** The opening: its shape, its size measured at three places, the gap and the depth. */
import { useState } from "react";
import {
  type BriefChanges,
  measureOpening,
  type OpeningSize,
  replaceOpening,
  resizeOpening,
} from "../../api/commands";
import { useChanges, useDesign } from "../../app/design";
import { ChoiceField, LengthField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { Readings } from "../../ui/Readings";
import { Trace } from "./Trace";
import { FromDrawing } from "./FromDrawing";

interface Props {
  set: (changes: BriefChanges) => void;
}

const SHAPES = [
  ["rect", "Rectangle"],
  ["arch", "Arched top"],
  ["path", "Drawn"],
] as const;

const PROCESSES = [
  ["", "Not set"],
  ["laser", "laser"],
  ["mill", "mill"],
  ["printer", "printer"],
  ["hand", "drill and saw"],
] as const;

export function OpeningForm({ set }: Props) {
  const view = useDesign();
  const { brief } = view.design;
  const { opening } = brief;
  const { send, sendFrom } = useChanges(view.id);
  const resize = (changes: OpeningSize) => void send([resizeOpening(changes)]);
  const [tracing, setTracing] = useState(false);
  const size = { width: view.opening_width, height: view.opening_height };
  const shape = (kind: (typeof SHAPES)[number][0]) => {
    if (kind === "path") setTracing(true);
    else resize({ shape: kind });
  };
  return (
    <section aria-label="Opening" className="mt-5">
      <h3 className="text-[12px]">The opening</h3>
      <div className="mt-1 grid grid-cols-3 gap-2.5">
        <ChoiceField label="Shape" value={opening.kind} options={SHAPES} onCommit={shape} />
        {opening.kind !== "path" && (
          <>
            <LengthField
              label="Width"
              value={opening.width}
              least={5}
              onCommit={(width) => resize({ width })}
            />
            <LengthField
              label={opening.kind === "arch" ? "Height at the sides" : "Height"}
              value={opening.height}
              least={5}
              onCommit={(height) => resize({ height })}
            />
          </>
        )}
        {opening.kind === "rect" && (
          <LengthField
            label="Corner radius"
            value={opening.radius}
            onCommit={(radius) => resize({ radius })}
          />
        )}
        {opening.kind === "arch" && (
          <LengthField
            label="Rise of the arch"
            value={opening.rise}
            least={0.1}
            onCommit={(rise) => resize({ rise })}
          />
        )}
        {opening.kind === "path" && (
          <p className="num col-span-2 self-end pb-2">
            {shown(size.width)} × {shown(size.height)}, {opening.points.length} corners
          </p>
        )}
      </div>
      <FromDrawing
        take={(outline) => void sendFrom((now) => replaceOpening(outline, now.design.brief))}
        onTrace={() => setTracing(true)}
      />
      {tracing && <Trace onClose={() => setTracing(false)} set={set} />}
      <div className="mt-3 grid grid-cols-1 gap-1.5">
        <Readings
          label="Width measured"
          values={brief.widths}
          onCommit={(_, place, mm) => void send([measureOpening("widths", place, mm)])}
        />
        <Readings
          label="Height measured"
          values={brief.heights}
          onCommit={(_, place, mm) => void send([measureOpening("heights", place, mm)])}
        />
        <Readings
          label="Its two diagonals"
          many={2}
          values={brief.diagonals}
          onCommit={(_, place, mm) => void send([measureOpening("diagonals", place, mm)])}
        />
      </div>
      <div className="mt-3 grid grid-cols-3 gap-2.5">
        <ChoiceField
          label="Edges are cut by"
          value={brief.process ?? ""}
          options={PROCESSES}
          onCommit={(process) => set({ process: process || null })}
        />
        <LengthField label="Gap on each side" value={brief.gap} onCommit={(gap) => set({ gap })} />
        <LengthField label="Free depth" value={brief.depth} least={1} onCommit={(depth) => set({ depth })} />
      </div>
    </section>
  );
}
