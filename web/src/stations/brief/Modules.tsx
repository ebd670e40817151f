/** The modules and the layers they are made of. */
import type { Command } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";

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
        {view.panels.map((panel) => (
          <div key={panel.id} className="mt-2 grid grid-cols-3 gap-2 border-t border-rule pt-2">
            <TextField
              label="Name"
              value={panel.name}
              needed
              onCommit={(name) => void send([{ do: "set_panel", panel: panel.id, name }])}
            />
            <LengthField
              label="Width"
              value={panel.width}
              least={5}
              onCommit={(width) =>
                void send([{ do: "set_panel_size", panel: panel.id, width, height: panel.height }])
              }
            />
            <LengthField
              label="Height"
              value={panel.height}
              least={5}
              onCommit={(height) =>
                void send([{ do: "set_panel_size", panel: panel.id, width: panel.width, height }])
              }
            />
            <LengthField
              label="x in the opening"
              value={panel.x}
              least={-5000}
              onCommit={(x) => void send([{ do: "set_panel", panel: panel.id, x }])}
            />
            <LengthField
              label="y in the opening"
              value={panel.y}
              least={-5000}
              onCommit={(y) => void send([{ do: "set_panel", panel: panel.id, y }])}
            />
            <Button
              look="quiet"
              className="self-end"
              onClick={() => void send([{ do: "remove_panel", panel: panel.id }])}
            >
              Take it away
            </Button>
          </div>
        ))}
      </section>
      <section aria-label="Layers" className="mt-5">
        <h3 className="text-[12px]">Layers, front to back</h3>
        {view.design.stack.map((layer) => (
          <div key={layer.id} className="mt-2 grid grid-cols-3 gap-2 border-t border-rule pt-2">
            <TextField
              label="Name"
              value={layer.name}
              needed
              onCommit={(name) => void send([{ do: "set_layer", layer: layer.id, name }])}
            />
            <ChoiceField
              label="Material"
              value={layer.material}
              options={MATERIALS}
              onCommit={(material) => void send([{ do: "set_layer", layer: layer.id, material }])}
            />
            <LengthField
              label="Thickness"
              value={layer.thickness}
              least={0.1}
              onCommit={(thickness) => void send([{ do: "set_layer", layer: layer.id, thickness }])}
            />
          </div>
        ))}
      </section>
    </>
  );
}
