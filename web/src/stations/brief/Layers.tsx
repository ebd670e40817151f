/** The layers: the panel's usual ones, and those of modules that are made another way. */
import { Fragment } from "react";
import type { Command, Design } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { SCHOOLS } from "../../app/schools";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { useMaterials } from "./useMaterials";

type Layer = Design["stack"][number];
type Edit = Omit<Extract<Command, { do: "edit_layer" }>, "do" | "layer" | "module">;

export function Layers() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const { design } = view;
  const single = design.modules.length < 2 && design.modules.every((m) => !m.stack);
  return (
    <section aria-label="Layers" className="mt-5">
      <h3 className="mb-1 text-[12px]">Layers, front to back</h3>
      <ChoiceField
        bare
        label="How the plates are made"
        value={design.school}
        options={SCHOOLS}
        onCommit={(school) => void send([{ do: "set_school", school }])}
      />
      <Stack of="" layers={design.stack} />
      {!single &&
        design.modules.map((module) => (
          <div key={module.id} className="mt-2">
            <div className="grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] items-center gap-1.5">
              <span className="truncate" title={module.name}>
                {module.name}
              </span>
              <ChoiceField
                bare
                label={`${module.name}, how it is made`}
                value={module.stack ? (module.school ?? design.school) : "usual"}
                options={[["usual", "As the panel"], ...SCHOOLS]}
                onCommit={(school) =>
                  void send([
                    { do: "set_school", module: module.id, school: school === "usual" ? null : school },
                  ])
                }
              />
            </div>
            {module.stack && <Stack of={module.name} module={module.id} layers={module.stack} />}
          </div>
        ))}
    </section>
  );
}

function Stack({ of, module, layers }: { of: string; module?: string; layers: readonly Layer[] }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const edit = (layer: string, changes: Edit) =>
    void send([{ do: "edit_layer", layer, ...(module ? { module } : {}), ...changes }]);
  const materials = useMaterials();
  const named = (layer: Layer, what: string) => `${of && `${of}, `}${layer.name}, ${what}`;
  return (
    <div className="mt-1 grid grid-cols-[minmax(0,3fr)_minmax(0,3fr)_minmax(0,2fr)_minmax(0,2fr)] gap-1.5">
      {["name", "material", "thick", "edge inside"].map((head) => (
        <span key={head} className="-mb-1 text-[11px] text-faint" aria-hidden="true">
          {head}
        </span>
      ))}
      {layers.map((layer) => (
        <Fragment key={layer.id}>
          <TextField
            bare
            label={`${of && `${of}, `}${layer.id}, name of the layer`}
            value={layer.name}
            needed
            onCommit={(name) => edit(layer.id, { name })}
          />
          <ChoiceField
            bare
            label={named(layer, "material")}
            value={layer.material}
            options={materials}
            onCommit={(material) => edit(layer.id, { material })}
          />
          <LengthField
            bare
            label={named(layer, "thickness")}
            value={layer.thickness}
            least={0.1}
            onCommit={(thickness) => edit(layer.id, { thickness })}
          />
          <LengthField
            bare
            label={named(layer, "how far its edge is inside the module's")}
            value={layer.inset}
            least={-100}
            onCommit={(inset) => edit(layer.id, { inset })}
          />
        </Fragment>
      ))}
    </div>
  );
}
