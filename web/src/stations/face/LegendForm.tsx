/** The words of one function: text, side, height, curve, symbol, marks; or nothing at all. */
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { ChoiceField, FigureField, LengthField, TextField } from "../../ui/fields";
import { useTrade } from "../../app/trade";

const SIDES = [
  ["above", "above"],
  ["below", "below"],
  ["left", "on the left"],
  ["right", "on the right"],
  ["inside", "on the lens"],
] as const;

const MARKS = [
  ["ticks", "strokes"],
  ["dots", "dots"],
  ["none", "none"],
] as const;

type Legend = NonNullable<Fn["legend"]>;

const BARE: Legend = {
  text: "",
  side: "above",
  cap: null,
  dx: 0,
  dy: 0,
  step: null,
  radius: null,
  curved: false,
  symbol: null,
  marks: "ticks",
  hidden: false,
};

export function LegendForm({ fn }: { fn: Fn }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const part = design.parts.find((p) => p.id === fn.part);
  const symbols = useTrade()?.symbols ?? [];
  const legend = fn.legend ?? BARE;
  const set = (changes: Partial<Legend>) => void send([{ do: "edit_legend", function: fn.id, ...changes }]);
  return (
    <section aria-label="Legend of the selected part" className="flex flex-col gap-2">
      <h3 className="truncate text-[12px]">{fn.name}</h3>
      <TextField label="Text (| starts a new line)" value={legend.text} onCommit={(text) => set({ text })} />
      <ChoiceField label="Position" value={legend.side} options={SIDES} onCommit={(side) => set({ side })} />
      <ChoiceField
        label="Symbol"
        value={legend.symbol ?? ""}
        options={[["", "none"], ...symbols.map((s) => [s, s] as const)]}
        onCommit={(symbol) => set({ symbol: symbol || null })}
      />
      <FigureField
        label="Letter height"
        unit="mm"
        value={legend.cap ?? null}
        hint="Automatic"
        least={0.5}
        most={50}
        onEmpty={() => set({ cap: null })}
        onCommit={(cap) => set({ cap })}
      />
      <div className="grid grid-cols-2 gap-2">
        <LengthField label="Offset right" value={legend.dx} least={-500} onCommit={(dx) => set({ dx })} />
        <LengthField label="Offset up" value={legend.dy} least={-500} onCommit={(dy) => set({ dy })} />
      </div>
      {part?.detents && (
        <ChoiceField
          label="Marks at the detents"
          value={legend.marks}
          options={MARKS}
          onCommit={(marks) => set({ marks })}
        />
      )}
      {fn.positions.length > 0 && (
        <FigureField
          label="Marks’ radius"
          unit="mm"
          value={legend.radius ?? null}
          hint="Automatic"
          least={1}
          most={500}
          onEmpty={() => set({ radius: null })}
          onCommit={(radius) => set({ radius })}
        />
      )}
      {part?.cover.kind === "circle" && legend.side === "above" && (
        <label className="flex items-center gap-2 text-[12px]">
          <input
            type="checkbox"
            checked={legend.curved}
            onChange={(event) => set({ curved: event.target.checked })}
          />
          Curve around the control
        </label>
      )}
      <label className="flex items-center gap-2 text-[12px]">
        <input
          type="checkbox"
          checked={legend.hidden}
          onChange={(event) => set({ hidden: event.target.checked })}
        />
        No legend
      </label>
    </section>
  );
}
