/** The fields of one layer: sheet, light, paint, joint, room before it, edge, and its named exceptions. */
import type { Command, Layer, StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { ExceptionForm } from "./ExceptionForm";

type Edit = Omit<Extract<Command, { do: "edit_layer" }>, "do" | "layer" | "module">;

const OPACITIES = [
  ["", "Not said"],
  ["clear", "Clear"],
  ["translucent", "Lets light through"],
  ["opaque", "Opaque"],
] as const;

const EDGES = [
  ["", "Open all round"],
  ["foam", "Closed by foam"],
  ["wall", "Closed by a wall"],
] as const;

const JOINS = [
  ["screws", "Screwed to the one before"],
  ["glue", "Glued to the one before"],
  ["trapped", "Held by its neighbours"],
] as const;

export function LayerFields({ stack, layer }: { stack: StackView; layer: Layer }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const trade = useTrade();
  const here = stack.own ? { module: stack.module } : {};
  const edit = (changes: Edit) => void send([{ do: "edit_layer", layer: layer.id, ...here, ...changes }]);
  const first = stack.layers[0]?.layer.id === layer.id;
  const named = (what: string) => `${layer.name}, ${what}`;
  const row = "grid grid-cols-[64px_minmax(0,1fr)] items-center gap-x-2";
  return (
    <div className="space-y-1.5 bg-wash px-3.5 pb-3">
      <Row words="Name" className={row}>
        <TextField bare label={named("name")} value={layer.name} needed onCommit={(name) => edit({ name })} />
      </Row>
      <Row words="Material" className={row}>
        <ChoiceField
          bare
          label={named("material")}
          value={layer.material}
          options={(trade?.materials ?? []).map((m) => [m.id, m.name] as const)}
          onCommit={(material) => edit({ material })}
        />
      </Row>
      <Row words="Thick" className={row}>
        <LengthField
          bare
          label={named("thickness")}
          value={layer.thickness}
          least={0.1}
          onCommit={(thickness) => edit({ thickness })}
        />
      </Row>
      <Row words="Colour" className={row}>
        <input
          type="color"
          aria-label={named("colour")}
          value={layer.colour}
          className="h-7 w-full rounded border border-faint bg-sheet"
          onChange={(event) => edit({ colour: event.target.value })}
        />
      </Row>
      <Row words="Light" className={row}>
        <ChoiceField
          bare
          label={named("light")}
          value={layer.opacity}
          options={OPACITIES}
          onCommit={(opacity) => edit({ opacity })}
        />
      </Row>
      {!first && (
        <>
          <Row words="Joint" className={row}>
            <ChoiceField
              bare
              label={named("joint")}
              value={layer.join}
              options={JOINS}
              onCommit={(join) => edit({ join })}
            />
          </Row>
          <Row words="Room" className={row}>
            <LengthField
              bare
              label={named("free room before it")}
              value={layer.gap}
              onCommit={(gap) => edit({ gap })}
            />
          </Row>
          {layer.gap > 0 && (
            <Row words="Sides" className={row}>
              <ChoiceField
                bare
                label={named("what closes that room")}
                value={layer.edge}
                options={EDGES}
                onCommit={(edge) => edit({ edge })}
              />
            </Row>
          )}
        </>
      )}
      <Row words="Edge in" className={row}>
        <LengthField
          bare
          label={named("how far its edge is inside the module's")}
          value={layer.inset}
          least={-100}
          onCommit={(inset) => edit({ inset })}
        />
      </Row>
      <PaintRows layer={layer} onEdit={(paint) => edit({ paint })} named={named} />
      <ExceptionForm stack={stack} layer={layer} />
      {stack.layers.length > 1 && (
        <Button look="quiet" onClick={() => void send([{ do: "remove_layer", layer: layer.id, ...here }])}>
          Remove this layer
        </Button>
      )}
    </div>
  );
}

function Row({
  words,
  className,
  children,
}: {
  words: string;
  className: string;
  children: React.ReactNode;
}) {
  return (
    <div className={className}>
      <span className="text-[11px] text-faint" aria-hidden="true">
        {words}
      </span>
      {children}
    </div>
  );
}

type Paint = Layer["paint"];
const SIDES = [
  ["front", "front"],
  ["back", "back"],
] as const;

function PaintRows({
  layer,
  onEdit,
  named,
}: {
  layer: Layer;
  onEdit: (paint: Paint) => void;
  named: (what: string) => string;
}) {
  const change = (n: number, changes: Partial<Paint[number]>) =>
    onEdit(layer.paint.map((p, k) => (k === n ? { ...p, ...changes } : p)));
  return (
    <div className="space-y-1.5">
      {layer.paint.map((paint, n) => (
        <div key={n} className="grid grid-cols-[64px_minmax(0,1fr)_34px_auto] items-center gap-x-1.5">
          <span className="text-[11px] text-faint">Paint</span>
          <ChoiceField
            bare
            label={named(`side of paint ${n + 1}`)}
            value={paint.side}
            options={SIDES}
            onCommit={(side) => change(n, { side })}
          />
          <input
            type="color"
            aria-label={named(`colour of paint ${n + 1}`)}
            value={paint.colour}
            className="h-7 w-full rounded border border-faint bg-sheet"
            onChange={(event) => change(n, { colour: event.target.value })}
          />
          <TakeAway
            what={named(`paint ${n + 1}`)}
            onTake={() => onEdit(layer.paint.filter((_, k) => k !== n))}
          />
        </div>
      ))}
      {layer.paint.length < 4 && (
        <Button
          look="quiet"
          onClick={() => onEdit([...layer.paint, { side: "front", coats: 1, colour: layer.colour }])}
        >
          Add paint
        </Button>
      )}
    </div>
  );
}
