/** Words: of the selected function, the style all share, and what is drawn on the plate beside them. */
import type { Command, DesignView, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { ChoiceField, FigureField } from "../../ui/fields";
import { GraphicsList } from "./GraphicsList";
import { LegendForm } from "./LegendForm";

const FONTS = [
  ["barlow-semi-condensed", "Barlow Semi Condensed"],
  ["barlow-condensed", "Barlow Condensed"],
  ["overpass", "Overpass"],
  ["single-stroke", "Single stroke, to engrave"],
] as const;

export function LegendsSide({ module }: { module: ModuleView }) {
  const { design } = useDesign();
  const selection = useSession((s) => s.selection);
  const chosen = design.functions.find((f) => f.id === selection[0] && f.place);
  return (
    <div className="min-h-0 flex-1 overflow-y-auto p-3.5">
      {chosen ? (
        <LegendForm key={chosen.id} fn={chosen} />
      ) : (
        <p className="text-[12px] text-faint">Select a placed part to set its legend.</p>
      )}
      <GraphicsList module={module} />
      <StyleForm style={design.style} />
    </div>
  );
}

type Style = DesignView["design"]["style"];

function StyleForm({ style }: { style: Style }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const set = (changes: Omit<Extract<Command, { do: "set_style" }>, "do">) =>
    void send([{ do: "set_style", ...changes }]);
  const caps = [
    ["panel_cap", "Panel name"],
    ["name_cap", "Control name"],
    ["position_cap", "Position"],
  ] as const;
  return (
    <section aria-label="Style of all legends" className="mt-5">
      <h3 className="text-[12px]">All legends</h3>
      <div className="mt-1 flex flex-col gap-2">
        <ChoiceField label="Font" value={style.font} options={FONTS} onCommit={(font) => set({ font })} />
        {caps.map(([key, label]) => (
          <FigureField
            key={key}
            label={`${label}, letter height`}
            unit="mm"
            value={style[key]}
            least={0.5}
            most={50}
            onCommit={(cap) => set({ [key]: cap })}
          />
        ))}
        <label className="flex items-center gap-2 text-[12px]">
          <input
            type="checkbox"
            checked={style.upper}
            onChange={(event) => set({ upper: event.target.checked })}
          />
          all in capitals
        </label>
      </div>
    </section>
  );
}
