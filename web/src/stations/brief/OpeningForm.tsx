/** The opening: its shape, its size measured at three places, the gap and the depth. */
import { useState } from "react";
import { answered, api, Refused } from "../../api/client";
import {
  type BriefChanges,
  measureOpening,
  type OpeningSize,
  replaceOpening,
  resizeOpening,
} from "../../api/commands";
import type { ImportView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { FileButton } from "../../ui/FileButton";
import { ChoiceField, LengthField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { Readings } from "../../ui/Readings";
import { Trace } from "./Trace";

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
    if (kind === "rect") set({ opening: { kind, ...size, radius: 0 } });
    else if (kind === "arch")
      set({ opening: { kind, width: size.width, height: size.height * 0.85, rise: size.height * 0.15 } });
    else setTracing(true);
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

const UNITS = ["as drawn", "mm", "cm", "in"] as const;

interface FromDrawingProps {
  take: (outline: ImportView["outlines"][number]["outline"]) => void;
  onTrace: () => void;
}

function FromDrawing({ take, onTrace }: FromDrawingProps) {
  const view = useDesign();
  const [unit, setUnit] = useState<(typeof UNITS)[number]>("as drawn");
  const [found, setFound] = useState<ImportView | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const read = async (chosen: File) => {
    setFound(null);
    setWrong(null);
    try {
      const content = await chosen.text();
      const result = await answered(
        api.POST("/api/designs/{design_id}/brief/read-outline", {
          params: { path: { design_id: view.id }, query: { unit } },
          body: content as never,
          bodySerializer: (body: unknown) => body as string,
        }),
      );
      setFound(result);
    } catch (error) {
      setWrong(
        error instanceof Refused ? `${chosen.name}: ${error.problem.detail}` : "It cannot be read now",
      );
    }
  };
  return (
    <div className="mt-2">
      <div className="flex flex-wrap items-center gap-2">
        <FileButton label="Drawing of the opening" accept=".dxf,.svg" onFile={(chosen) => void read(chosen)}>
          From a DXF or SVG file…
        </FileButton>
        <label className="flex items-center gap-1.5 text-[12px] text-faint">
          unit
          <select
            className="h-7 rounded border border-faint bg-sheet px-1 text-ink"
            value={unit}
            onChange={(event) => setUnit(event.target.value as typeof unit)}
          >
            {UNITS.map((u) => (
              <option key={u}>{u}</option>
            ))}
          </select>
        </label>
        <Button look="quiet" onClick={onTrace}>
          Type its corners
        </Button>
      </div>
      {wrong && (
        <p role="alert" className="mt-1.5 text-[12px] text-must">
          {wrong}
        </p>
      )}
      {found && (
        <Found
          found={found}
          onTake={(outline) => {
            setFound(null);
            take(outline);
          }}
        />
      )}
    </div>
  );
}

interface FoundProps {
  found: ImportView;
  onTake: (outline: ImportView["outlines"][number]["outline"]) => void;
}

function Found({ found, onTake }: FoundProps) {
  return (
    <div
      className="mt-2 rounded border border-rule bg-sheet p-2.5"
      role="group"
      aria-label="Found in the drawing"
    >
      <p className="text-[12px] text-faint">
        Read in {found.unit}. {found.notes.join(". ")}
      </p>
      <ul className="mt-1.5 flex flex-wrap gap-2">
        {found.outlines.slice(0, 8).map((o, n) => (
          <li key={n}>
            <Button onClick={() => onTake(o.outline)}>
              <svg
                width="52"
                height="34"
                viewBox={`${-o.width * 0.04} ${-o.height * 1.04} ${o.width * 1.08} ${o.height * 1.08}`}
                aria-hidden="true"
              >
                <path
                  d={o.path}
                  transform="scale(1 -1)"
                  fill="none"
                  stroke="currentColor"
                  strokeWidth={o.width / 40}
                />
              </svg>
              <span className="num block">
                Take {shown(o.width)} × {shown(o.height)}
              </span>
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
