/** Boxes in the way, behind the opening and in front of it, with the depth they leave. */
import { Fragment } from "react";
import type { DesignView, KeepOut } from "../../api/types";
import { useChanges } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, LengthField, TextField } from "../../ui/fields";
import { useBrief } from "./useBrief";
import { TakeAway } from "../../ui/TakeAway";

const KINDS = [
  ["bar", "bar"],
  ["frame", "frame"],
  ["shelf", "shelf"],
  ["neighbour", "device beside"],
] as const;

const SIDES = [
  ["behind", "behind"],
  ["front", "in front"],
] as const;

export function KeepOuts({ view }: { view: DesignView }) {
  const { send } = useChanges(view.id);
  const { keepouts } = view.design.brief;
  const edit = (keepout: string, changes: Partial<Omit<KeepOut, "id">>) =>
    void send([{ do: "edit_keepout", keepout, ...changes }]);
  const usual = useBrief().data?.bar;
  const add = () => {
    if (usual) void send([{ do: "add_keepout", ...usual }]);
  };
  return (
    <section aria-label="Behind the opening" className="mt-5">
      <p className="flex items-center justify-between">
        <b className="text-[12px]">In the way</b>{" "}
        <Button disabled={!usual} onClick={add}>
          Add a bar or box
        </Button>
      </p>
      {keepouts.map((box) => (
        <div key={box.id} className="mt-2 grid grid-cols-[repeat(15,minmax(0,1fr))] items-start gap-1.5">
          <div className="col-span-6">
            <TextField
              bare
              label="What is in the way"
              value={box.name}
              needed
              onCommit={(name) => edit(box.id, { name })}
            />
          </div>
          <div className="col-span-4">
            <ChoiceField
              bare
              label={`${box.name}, kind`}
              value={box.kind}
              options={KINDS}
              onCommit={(kind) => edit(box.id, { kind })}
            />
          </div>
          <div className="col-span-4">
            <ChoiceField
              bare
              label={`${box.name}, where`}
              value={box.side}
              options={SIDES}
              onCommit={(side) => edit(box.id, { side })}
            />
          </div>
          <TakeAway what={box.name} onTake={() => void send([{ do: "remove_keepout", keepout: box.id }])} />
          {(["x", "y", "width", "height", "clear"] as const).map((key) => (
            <Fragment key={key}>
              <div className="col-span-3">
                <span className="block text-[11px] text-faint" aria-hidden="true">
                  {key === "clear" ? "free, mm" : key}
                </span>
                <LengthField
                  bare
                  label={`${box.name}, ${key === "clear" ? "depth left free" : key}`}
                  value={box[key]}
                  least={key === "x" || key === "y" ? -5000 : key === "clear" ? 0 : 1}
                  onCommit={(mm) => edit(box.id, { [key]: mm })}
                />
              </div>
            </Fragment>
          ))}
        </div>
      ))}
    </section>
  );
}
