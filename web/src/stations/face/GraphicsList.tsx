/** Brackets, boxes, texts, placards and symbols of this plate: added, edited, removed. */
import type { DesignView, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { newGraphic } from "./newGraphic";

type Graphic = DesignView["design"]["graphics"][number];

const KINDS = [
  ["bracket", "Bracket"],
  ["box", "Box"],
  ["text", "Panel name"],
  ["placard", "Placard"],
  ["symbol", "Symbol"],
] as const;

export function GraphicsList({ module }: { module: ModuleView }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const add = (kind: Graphic["kind"]) => {
    const { selection } = useSession.getState();
    const over = design.functions.filter((f) => selection.includes(f.id));
    const spot = { x: module.width / 2, y: module.height - 12 };
    void send([newGraphic(kind, module, over, spot)]);
  };
  return (
    <section aria-label="Drawn on this plate" className="mt-5">
      <h3 className="text-[12px]">Drawn on this plate</h3>
      <p className="mt-1 flex flex-wrap gap-1">
        {KINDS.map(([kind, words]) => (
          <Button key={kind} onClick={() => add(kind)}>
            + {words}
          </Button>
        ))}
      </p>
      <p className="mt-1 text-[11px]/[14px] text-faint">
        A bracket or box goes over what is selected. Placards are protected: nothing may cover them.
      </p>
      {design.graphics
        .filter((g) => g.module === module.id)
        .map((g) => (
          <GraphicRow key={g.id} graphic={g} />
        ))}
    </section>
  );
}

function GraphicRow({ graphic }: { graphic: Graphic }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const set = (changes: Partial<Omit<Graphic, "id" | "kind">>) =>
    void send([{ do: "edit_graphic", graphic: graphic.id, ...changes }]);
  const symbols = useTrade()?.symbols ?? [];
  const follows = graphic.kind === "bracket" && graphic.functions.length > 0;
  const what = KINDS.find(([kind]) => kind === graphic.kind)?.[1] ?? graphic.kind;
  return (
    <div role="group" aria-label={`${what} ${graphic.text}`} className="mt-2 border-t border-rule pt-2">
      <div className="grid grid-cols-[minmax(0,1fr)_20px] items-end gap-1">
        {graphic.kind === "symbol" ? (
          <ChoiceField
            label="Symbol"
            value={graphic.symbol ?? "warning"}
            options={symbols.map((s) => [s, s] as const)}
            onCommit={(symbol) => set({ symbol })}
          />
        ) : (
          <TextField
            label={what}
            value={graphic.text}
            needed={graphic.kind === "text" || graphic.kind === "placard"}
            onCommit={(text) => set({ text })}
          />
        )}
        <TakeAway
          what={`${what} ${graphic.text}`}
          onTake={() => void send([{ do: "remove_graphic", graphic: graphic.id }])}
        />
      </div>
      <div className="mt-1 grid grid-cols-2 gap-1">
        {!follows && (
          <LengthField
            bare
            label={`${what} ${graphic.text}, x`}
            value={graphic.x}
            least={-5000}
            onCommit={(x) => set({ x })}
          />
        )}
        <LengthField
          bare
          label={follows ? `${what} ${graphic.text}, further up by` : `${what} ${graphic.text}, y`}
          value={graphic.y}
          least={-5000}
          onCommit={(y) => set({ y })}
        />
        {(graphic.kind === "box" || (graphic.kind === "bracket" && !follows)) && (
          <LengthField
            bare
            label={`${what} ${graphic.text}, width`}
            value={graphic.width}
            least={1}
            onCommit={(width) => set({ width })}
          />
        )}
        {graphic.kind === "box" && (
          <LengthField
            bare
            label={`${what} ${graphic.text}, height`}
            value={graphic.height}
            least={1}
            onCommit={(height) => set({ height })}
          />
        )}
      </div>
    </div>
  );
}
