/** One sheet as it will be made; each operation in its own line, shown or hidden. */
import { useRef } from "react";
import { Looking } from "../../app/Looking";
import { Canvas } from "../../canvas/Canvas";
import { useCamera } from "../../canvas/useCamera";
import { many } from "../../ui/figures";
import type { CutModule } from "../../api/types";

type Sheet = CutModule["sheets"][number];
type Operation = Sheet["operations"][number]["operation"];

const LINE: Record<Operation, { colour: string; words: string }> = {
  mask: { colour: "var(--judge)", words: "kiss cuts" },
  engrave: { colour: "var(--note)", words: "engrave" },
  pocket: { colour: "var(--judge)", words: "pocket from behind" },
  inner: { colour: "var(--petrol)", words: "inner cuts" },
  outline: { colour: "var(--ink)", words: "outline, last" },
};

interface Props {
  module: CutModule;
  sheet: Sheet;
  hidden: ReadonlySet<string>;
  onFlip: (operation: string) => void;
}

export function SheetDrawing({ module, sheet, hidden, onFlip }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const camera = useCamera(
    frame,
    { x: 0, y: 0, width: sheet.width, height: sheet.height },
    { name: `cut ${module.id}` },
  );
  return (
    <>
      <Canvas camera={camera} frame={frame} drawing={{ role: "img", "aria-label": sheet.title }}>
        <g fill="none">
          {sheet.operations.map(
            ({ operation, path }) =>
              operation === "outline" && <path key="sheet" d={path} fill="var(--sheet)" />,
          )}
          {sheet.operations.map(
            ({ operation, path, line }) =>
              !hidden.has(operation) && (
                <g key={operation} data-operation={operation} strokeWidth={1.4 / camera.viewport.scale}>
                  <path
                    d={path}
                    fill={operation === "engrave" ? LINE[operation].colour : "none"}
                    fillRule="nonzero"
                    stroke={operation === "engrave" ? "none" : LINE[operation].colour}
                  />
                  {line && <path d={line} stroke={LINE[operation].colour} />}
                </g>
              ),
          )}
        </g>
      </Canvas>
      <ol
        aria-label="Operations in their order"
        className="flex flex-wrap gap-x-4 gap-y-1 border-t border-rule bg-card px-4 py-2 text-[12px]"
      >
        {sheet.operations.map(({ operation, many: count }, n) => (
          <li key={operation}>
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={!hidden.has(operation)}
                onChange={() => onFlip(operation)}
                className="accent-petrol"
              />
              <svg width="18" height="8" aria-hidden="true">
                <path
                  d="M0 4H18"
                  stroke={LINE[operation].colour}
                  strokeWidth={operation === "engrave" ? 5 : 2}
                />
              </svg>
              {n + 1}. {LINE[operation].words}
              <span className="text-faint">{many(count, "path")}</span>
            </label>
          </li>
        ))}
        <li className="ml-auto">
          <Looking camera={camera} />
        </li>
      </ol>
    </>
  );
}
