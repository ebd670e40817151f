/** The layers in their order with what each holds; the chosen one with its fields. */
import { useState } from "react";
import type { StackLayer, StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { SCHOOLS } from "../../app/schools";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import { ChoiceField } from "../../ui/fields";
import { LayerFields } from "./LayerFields";
import { useStack } from "./store";

interface Props {
  stack: StackView;
  name: string;
  chosen: string;
}

export function LayerList({ stack, name, chosen }: Props) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const set = useStack((s) => s.set);
  const here = stack.own ? { module: stack.module } : {};
  const [adding, setAdding] = useState(false);
  return (
    <div className="text-[12px]">
      <div className="space-y-2 px-3.5 pt-2 pb-3">
        <ChoiceField
          label={`${name} is built as`}
          value={stack.own ? stack.school : "usual"}
          options={[["usual", `As the panel: ${said(view.design.school)}`], ...SCHOOLS]}
          onCommit={(school) =>
            void send([
              { do: "set_school", module: stack.module, school: school === "usual" ? null : school },
            ])
          }
        />
        {!stack.own && (
          <p className="text-[11px] text-faint">
            A change of a layer here changes it in every module that is built as the panel.
          </p>
        )}
      </div>
      <ol className="border-t border-rule">
        {stack.layers.map((layer) => (
          <li key={layer.layer.id} className="border-b border-rule">
            <button
              type="button"
              aria-pressed={layer.layer.id === chosen}
              className={`flex w-full items-start gap-2.5 px-3.5 py-2 text-left ${
                layer.layer.id === chosen ? "bg-wash" : "hover:bg-warm"
              }`}
              onClick={() => set({ layer: layer.layer.id })}
            >
              <Swatch layer={layer} />
              <span className="min-w-0">
                <span className="block font-semibold">{layer.layer.name}</span>
                <Made layer={layer} />
                <span className="block text-[11px] text-faint">
                  {layer.holds || "nothing is cut in it yet"}
                </span>
                <Least layer={layer} />
              </span>
            </button>
            {layer.layer.id === chosen && <LayerFields stack={stack} layer={layer.layer} />}
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-2 px-3.5 py-2.5">
        <Button aria-expanded={adding} onClick={() => setAdding(!adding)}>
          Add a layer…
        </Button>
        {adding &&
          KINDS.map(([kind, words]) => (
            <Button
              key={kind}
              look="quiet"
              onClick={() => {
                setAdding(false);
                void send([{ do: "add_layer", role: kind, ...here }]);
              }}
            >
              {words}
            </Button>
          ))}
      </div>
    </div>
  );
}

const KINDS = [
  ["diffuser", "Diffuser"],
  ["back", "Back"],
  ["board", "Light board"],
  ["buttons", "Button board"],
] as const;

const said = (school: string): string =>
  (SCHOOLS.find(([key]) => key === school)?.[1] ?? school).split(":")[0]?.toLowerCase() ?? school;

function Swatch({ layer }: { layer: StackLayer }) {
  return (
    <svg width="14" height="26" className="mt-0.5 shrink-0" aria-hidden="true">
      <rect x="0.5" y="0.5" width="13" height="25" fill={layer.layer.colour} stroke="var(--faint)" />
    </svg>
  );
}

/** What it is made of, and how it is fixed to what lies before it. */
function Made({ layer }: { layer: StackLayer }) {
  const trade = useTrade();
  const { material, thickness, gap, opacity, paint, join } = layer.layer;
  const words = [
    `${trade?.materials.find((m) => m.id === material)?.name ?? material} ${shown(thickness)}`,
    opacity,
    paint.length > 0 ? "painted" : "",
    join === "screws" ? "" : join === "glue" ? "glued" : "trapped",
    gap > 0 ? `${shown(gap)} before it` : "",
  ];
  return <span className="block text-[11px] text-faint">{words.filter(Boolean).join(", ")}</span>;
}

/** Its least bridge beside what its material needs. */
function Least({ layer }: { layer: StackLayer }) {
  const least = layer.bridges[0];
  if (!least) return null;
  return (
    <span className="block text-[11px] text-faint" title={least.between}>
      least bridge{" "}
      <span className={`num ${least.thin ? "font-semibold text-must" : "text-ink"}`}>{shown(least.gap)}</span>
      , <span className="num">{shown(layer.need)}</span> needed
    </span>
  );
}
