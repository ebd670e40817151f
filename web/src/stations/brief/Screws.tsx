/** The screws of each module: one in every corner, and as many more by hand as are wanted. */
import { Fragment } from "react";
import type { ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";

const SIZES = (["M2", "M2.5", "M3", "M4", "M5", "M6"] as const).map((size) => [size, size] as const);

export function Screws() {
  const { modules } = useDesign();
  if (modules.length === 0) return null;
  return (
    <section aria-label="Screws" className="mt-5">
      <h3 className="text-[12px]">Screws, through every layer</h3>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)_72px_60px_52px_auto] items-center gap-x-2 gap-y-1.5">
        {["module", "size", "to edge", "corners", ""].map((head) => (
          <span key={head} className="text-[11px] text-faint" aria-hidden="true">
            {head}
          </span>
        ))}
        {modules.map((module) => (
          <ScrewRows key={module.id} module={module} />
        ))}
      </div>
    </section>
  );
}

function ScrewRows({ module }: { module: ModuleView }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const fixings = view.design.modules.find((m) => m.id === module.id)?.fixings;
  const here = { module: module.id };
  return (
    <>
      <span className="truncate" title={module.name}>
        {module.name}
      </span>
      {fixings ? (
        <>
          <ChoiceField
            bare
            label={`${module.name}, screws`}
            value={fixings.screw}
            options={SIZES}
            onCommit={(screw) => void send([{ do: "set_fixings", ...here, screw }])}
          />
          <LengthField
            bare
            label={`${module.name}, screws from the edge`}
            value={fixings.inset}
            onCommit={(inset) => void send([{ do: "set_fixings", ...here, inset }])}
          />
        </>
      ) : (
        <span className="col-span-2 text-faint">none</span>
      )}
      <input
        type="checkbox"
        className="justify-self-center accent-petrol"
        aria-label={`${module.name}, a screw in every corner`}
        checked={fixings?.corners ?? false}
        onChange={(e) => void send([{ do: "set_fixings", ...here, corners: e.target.checked }])}
      />
      <Button
        aria-label={`Add a screw to ${module.name}`}
        onClick={() => void send([{ do: "add_screw", ...here }])}
      >
        Add
      </Button>
      {fixings?.by_hand.map((screw) => (
        <Fragment key={screw.id}>
          <span className="pl-3 text-[12px] text-faint">{screw.id}: x, y</span>
          {(["x", "y"] as const).map((axis) => (
            <LengthField
              bare
              key={axis}
              label={`${module.name}, screw ${screw.id}, ${axis}`}
              value={screw[axis]}
              least={-5000}
              onCommit={(mm) => void send([{ do: "edit_screw", ...here, screw: screw.id, [axis]: mm }])}
            />
          ))}
          <TakeAway
            what={`screw ${screw.id} of ${module.name}`}
            onTake={() => void send([{ do: "remove_screw", ...here, screw: screw.id }])}
          />
          <span />
        </Fragment>
      ))}
    </>
  );
}
