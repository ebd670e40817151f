/** Opening, modules, what is in the way, and the beds of the machines laid over it, at true proportions. */
import { useState } from "react";
import type { DesignView, KeepOut, ModuleView } from "../../api/types";
import { useChanges } from "../../app/design";
import { useDragMm } from "../../canvas/useDragMm";
import { shown } from "../../ui/figures";

export function FrontElevation({ view }: { view: DesignView }) {
  const [bed, setBed] = useState("");
  const { opening_width: width, opening_height: height } = view;
  const pad = width * 0.05 + 6;
  const s = width / 340;
  const machine = view.design.workshop.machines.find((m) => m.id === bed);
  const { widths } = view.design.brief;
  const figure =
    widths.length > 0
      ? `${shown(Math.min(...widths))} least of ${widths.map((w) => shown(w)).join(" ")}`
      : `${shown(width)} × ${shown(height)}`;
  return (
    <>
      <svg
        className="mt-2 max-h-56 w-full touch-none"
        viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad + 26 * s}`}
        role="group"
        aria-label={`Opening ${shown(width)} by ${shown(height)} mm with ${view.modules.length} modules`}
      >
        <g transform={`translate(0 ${height}) scale(1 -1)`}>
          <path d={view.opening} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4 * s} />
          {view.modules.map((module) => (
            <Module key={module.id} module={module} view={view} s={s} />
          ))}
          {machine &&
            view.modules.map((module) => (
              <rect
                key={module.id}
                x={module.x}
                y={module.y}
                width={machine.bed_width - 2 * machine.margin}
                height={machine.bed_height - 2 * machine.margin}
                fill="none"
                stroke="#D9542B"
                strokeWidth={1.2 * s}
                strokeDasharray={`${6 * s} ${3 * s}`}
                pointerEvents="none"
              />
            ))}
          {view.design.brief.keepouts.map((box) => (
            <Box key={box.id} box={box} view={view} s={s} />
          ))}
        </g>
        <g fontFamily="var(--font-sans)" fontSize={12 * s} textAnchor="middle" pointerEvents="none">
          {view.modules.map((module) => (
            <text
              key={module.id}
              x={module.x + module.width / 2}
              y={height - module.y - module.height * 0.72}
              fill="#EDE9DD"
            >
              {module.name.length > 18 ? `${module.name.slice(0, 17)}…` : module.name}
            </text>
          ))}
          <path
            d={`M0 ${height + 14 * s}H${width}M0 ${height + 9 * s}v${10 * s}M${width} ${height + 9 * s}v${10 * s}`}
            stroke="var(--faint)"
            strokeWidth={s}
          />
          <text x={width / 2} y={height + 29 * s} fontFamily="var(--font-mono)" fill="var(--ink)">
            {figure}
          </text>
        </g>
      </svg>
      {view.design.workshop.machines.length > 0 && (
        <label className="flex items-center gap-2 text-[12px] text-faint">
          <span className="shrink-0">Show a machine's bed</span>
          <select
            className="h-7 min-w-0 rounded border border-faint bg-sheet px-1 text-ink"
            value={bed}
            onChange={(event) => setBed(event.target.value)}
          >
            <option value="">none</option>
            {view.design.workshop.machines.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </select>
        </label>
      )}
    </>
  );
}

const rounded = (value: number) => Math.round(value * 100) / 100;

function Module({ module, view, s }: { module: ModuleView; view: DesignView; s: number }) {
  const { send } = useChanges(view.id);
  const { shift, grip } = useDragMm(({ dx, dy }) => {
    const at = { x: rounded(module.x + dx), y: rounded(module.y + dy) };
    return send([{ do: "edit_module", module: module.id, ...at }]);
  });
  const at = { x: module.x + (shift?.dx ?? 0), y: module.y + (shift?.dy ?? 0) };
  return (
    <g transform={`translate(${at.x} ${at.y})`}>
      <path
        d={module.path}
        fill="#2D3639"
        stroke={shift ? "var(--petrol)" : "none"}
        strokeWidth={2 * s}
        role="button"
        tabIndex={0}
        aria-label={`${module.name}, x ${shown(at.x)}, y ${shown(at.y)}: arrow keys move it`}
        className="cursor-move"
        {...grip}
      />
    </g>
  );
}

function Box({ box, view, s }: { box: KeepOut; view: DesignView; s: number }) {
  const { send } = useChanges(view.id);
  const { shift, grip } = useDragMm(({ dx, dy }) => {
    const at = { x: rounded(box.x + dx), y: rounded(box.y + dy) };
    return send([{ do: "edit_keepout", keepout: box.id, ...at }]);
  });
  const x = box.x + (shift?.dx ?? 0);
  const y = box.y + (shift?.dy ?? 0);
  const colour = box.side === "front" ? "#D9542B" : "#E0B050";
  return (
    <g>
      <rect
        x={x}
        y={y}
        width={box.width}
        height={box.height}
        fill={colour}
        fillOpacity={0.35}
        stroke={colour}
        strokeWidth={s}
        strokeDasharray={`${4 * s} ${2.5 * s}`}
        role="button"
        tabIndex={0}
        aria-label={`${box.name}, x ${shown(x)}, y ${shown(y)}: arrow keys move it`}
        className="cursor-move"
        {...grip}
      />
      <text
        transform={`translate(${x + box.width / 2} ${y + box.height / 2 - 4 * s}) scale(1 -1)`}
        fontFamily="var(--font-sans)"
        fontSize={11 * s}
        textAnchor="middle"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth={3 * s}
        paintOrder="stroke"
        pointerEvents="none"
      >
        {box.name} {box.side}, {shown(box.clear, 0)} free
      </text>
    </g>
  );
}
