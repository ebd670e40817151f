/** The space from the front: the opening with its modules and what is behind, and its figures. */
import { Fragment } from "react";
import type { DesignView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { KINDS } from "../../app/kinds";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { Modules } from "./Modules";
import { TakeAway } from "./TakeAway";

export function Space() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const { brief } = view.design;
  const opening = brief.opening;
  return (
    <section aria-label="Space">
      <h2 className="text-[13px]">The space, from the front</h2>
      <Elevation view={view} />
      <div className="mt-3 grid grid-cols-4 gap-2.5">
        {opening.kind === "rect" && (
          <>
            <LengthField
              label="Width"
              value={opening.width}
              least={5}
              onCommit={(width) => void send([{ do: "set_brief", opening: { ...opening, width } }])}
            />
            <LengthField
              label="Height"
              value={opening.height}
              least={5}
              onCommit={(height) => void send([{ do: "set_brief", opening: { ...opening, height } }])}
            />
          </>
        )}
        <LengthField
          label="Fit gap a side"
          value={brief.gap}
          onCommit={(gap) => void send([{ do: "set_brief", gap }])}
        />
        <LengthField
          label="Free depth"
          value={brief.depth}
          least={1}
          onCommit={(depth) => void send([{ do: "set_brief", depth }])}
        />
        <div className="col-span-2">
          <ChoiceField
            label="Kind of panel"
            value={brief.kind}
            options={KINDS}
            onCommit={(kind) => void send([{ do: "set_brief", kind }])}
          />
        </div>
        <div className="col-span-4">
          <TextField
            label="In a few words"
            value={brief.title}
            onCommit={(title) => void send([{ do: "set_brief", title }])}
          />
        </div>
      </div>
      {brief.kind === "aircraft" && (
        <p className="mt-2 border-l-[3px] border-look pl-2.5 text-[12px] text-look">
          For planning only. A real aircraft answers to its authority's rules and to licensed practice.
        </p>
      )}
      <KeepOuts view={view} />
      <Modules />
    </section>
  );
}

/** Opening, modules and keep-outs at true proportions. */
function Elevation({ view }: { view: DesignView }) {
  const { opening_width: width, opening_height: height } = view;
  const pad = width * 0.05 + 6;
  const s = width / 340;
  return (
    <svg
      className="mt-2 max-h-56 w-full"
      viewBox={`${-pad} ${-pad} ${width + 2 * pad} ${height + 2 * pad + 26 * s}`}
      role="img"
      aria-label={`Opening ${shown(width)} by ${shown(height)} mm with ${view.panels.length} modules`}
    >
      <g transform={`translate(0 ${height}) scale(1 -1)`}>
        <path d={view.opening} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={1.4 * s} />
        {view.panels.map((panel) => (
          <path key={panel.id} d={panel.path} transform={`translate(${panel.x} ${panel.y})`} fill="#2D3639" />
        ))}
        {view.design.brief.keepouts.map((box) => (
          <rect
            key={box.id}
            x={box.x}
            y={box.y}
            width={box.width}
            height={box.height}
            fill="#E0B050"
            fillOpacity={0.35}
            stroke="#E0B050"
            strokeWidth={s}
            strokeDasharray={`${4 * s} ${2.5 * s}`}
          />
        ))}
      </g>
      <g fontFamily="var(--font-sans)" fontSize={12 * s} textAnchor="middle">
        {view.panels.map((panel) => (
          <text
            key={panel.id}
            x={panel.x + panel.width / 2}
            y={height - panel.y - panel.height * 0.72}
            fill="#EDE9DD"
          >
            {panel.name}
          </text>
        ))}
        {view.design.brief.keepouts.map((box) => (
          <text key={box.id} x={box.x + box.width / 2} y={height - box.y + 13 * s} fill="#F4D58A">
            {box.name}, {shown(box.clear, 0)} free
          </text>
        ))}
        <path
          d={`M0 ${height + 14 * s}H${width}M0 ${height + 9 * s}v${10 * s}M${width} ${height + 9 * s}v${10 * s}`}
          stroke="var(--faint)"
          strokeWidth={s}
        />
        <text x={width / 2} y={height + 29 * s} fontFamily="var(--font-mono)" fill="var(--ink)">
          {shown(width)} × {shown(height)}
        </text>
      </g>
    </svg>
  );
}

function KeepOuts({ view }: { view: DesignView }) {
  const { send } = useChanges(view.id);
  const { keepouts } = view.design.brief;
  const add = () => {
    const taken = new Set(keepouts.map((k) => k.id));
    let n = 1;
    while (taken.has(`behind-${n}`)) n += 1;
    void send([
      {
        do: "set_keepout",
        keepout: {
          id: `behind-${n}`,
          name: "bar",
          x: 0,
          y: Math.round(view.opening_height / 2),
          width: view.opening_width,
          height: 12,
          clear: 30,
        },
      },
    ]);
  };
  return (
    <section aria-label="Behind the opening" className="mt-5">
      <h3 className="flex items-center justify-between text-[12px]">
        In the way behind <Button onClick={add}>Add a bar or box</Button>
      </h3>
      {keepouts.length > 0 && (
        <div className="mt-1 grid grid-cols-[minmax(0,2fr)_repeat(5,minmax(0,1fr))_24px] items-start gap-1.5">
          {["what", "x", "y", "width", "height", "free", ""].map((head) => (
            <span key={head} className="text-[11px] text-faint" aria-hidden="true">
              {head}
            </span>
          ))}
          {keepouts.map((box) => (
            <Fragment key={box.id}>
              <TextField
                bare
                label="What is in the way"
                value={box.name}
                needed
                onCommit={(name) => void send([{ do: "set_keepout", keepout: { ...box, name } }])}
              />
              {(["x", "y", "width", "height", "clear"] as const).map((key) => (
                <LengthField
                  bare
                  key={key}
                  label={`${box.name}, ${key === "clear" ? "depth left free" : key}`}
                  value={box[key]}
                  least={key === "x" || key === "y" ? -5000 : key === "clear" ? 0 : 1}
                  onCommit={(mm) => void send([{ do: "set_keepout", keepout: { ...box, [key]: mm } }])}
                />
              ))}
              <TakeAway
                what={box.name}
                onTake={() => void send([{ do: "remove_keepout", keepout: box.id }])}
              />
            </Fragment>
          ))}
        </div>
      )}
      {keepouts.length === 0 && (
        <p className="mt-1 text-[12px] text-faint">Nothing known behind the opening.</p>
      )}
    </section>
  );
}
