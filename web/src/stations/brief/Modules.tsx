/** The modules and the layers they are made of. */
import { Fragment } from "react";
import type { Command, PanelView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { TakeAway } from "./TakeAway";

const MATERIALS = [
  ["acrylic", "Acrylic"],
  ["plywood", "Plywood"],
  ["hardboard", "Hardboard"],
  ["mdf", "MDF"],
  ["aluminium", "Aluminium"],
  ["steel", "Steel"],
  ["abs", "ABS"],
  ["polycarbonate", "Polycarbonate"],
  ["pvc", "PVC: never under a laser"],
] as const;

export function Modules() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const add = () => {
    const command: Command = {
      do: "add_panel",
      name: `Module ${view.panels.length + 1}`,
      outline: { kind: "rect", width: 120, height: Math.max(20, view.opening_height - 1), radius: 3 },
      x: 0.5,
      y: 0.5,
    };
    void send([command]);
  };
  return (
    <>
      <section aria-label="Modules" className="mt-5">
        <h3 className="flex items-center justify-between text-[12px]">
          Modules <Button onClick={add}>Add a module</Button>
        </h3>
        <div className="mt-1 grid grid-cols-[minmax(0,2fr)_repeat(4,minmax(0,1fr))_24px] items-start gap-1.5">
          {["name", "width", "height", "x", "y", ""].map((head) => (
            <span key={head} className="text-[11px] text-faint" aria-hidden="true">
              {head}
            </span>
          ))}
          {view.panels.map((panel) => (
            <ModuleRow key={panel.id} panel={panel} />
          ))}
        </div>
      </section>
      <section aria-label="Layers" className="mt-5">
        <h3 className="text-[12px]">Layers, front to back</h3>
        <div className="mt-1 grid grid-cols-3 gap-1.5">
          {view.design.stack.map((layer) => (
            <Fragment key={layer.id}>
              <TextField
                bare
                label="Name of the layer"
                value={layer.name}
                needed
                onCommit={(name) => void send([{ do: "set_layer", layer: layer.id, name }])}
              />
              <ChoiceField
                bare
                label={`${layer.name}, material`}
                value={layer.material}
                options={MATERIALS}
                onCommit={(material) => void send([{ do: "set_layer", layer: layer.id, material }])}
              />
              <LengthField
                bare
                label={`${layer.name}, thickness`}
                value={layer.thickness}
                least={0.1}
                onCommit={(thickness) => void send([{ do: "set_layer", layer: layer.id, thickness }])}
              />
            </Fragment>
          ))}
        </div>
      </section>
    </>
  );
}

function ModuleRow({ panel }: { panel: PanelView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const size = (width: number, height: number) =>
    void send([{ do: "set_panel_size", panel: panel.id, width, height }]);
  return (
    <>
      <TextField
        bare
        label="Name of the module"
        value={panel.name}
        needed
        onCommit={(name) => void send([{ do: "set_panel", panel: panel.id, name }])}
      />
      <LengthField
        bare
        label={`${panel.name}, width`}
        value={panel.width}
        least={5}
        onCommit={(width) => size(width, panel.height)}
      />
      <LengthField
        bare
        label={`${panel.name}, height`}
        value={panel.height}
        least={5}
        onCommit={(height) => size(panel.width, height)}
      />
      {(["x", "y"] as const).map((axis) => (
        <LengthField
          bare
          key={axis}
          label={`${panel.name}, ${axis} in the opening`}
          value={panel[axis]}
          least={-5000}
          onCommit={(mm) => void send([{ do: "set_panel", panel: panel.id, [axis]: mm }])}
        />
      ))}
      <TakeAway what={panel.name} onTake={() => void send([{ do: "remove_panel", panel: panel.id }])} />
    </>
  );
}
