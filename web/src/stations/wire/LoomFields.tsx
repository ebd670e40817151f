/** How the wires of a module run: its trunk, where it leaves, the loop for swinging out, its two plugs. */
import type { HarnessView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { ChoiceField, LengthField } from "../../ui/fields";
import { Button } from "../../ui/Button";

const PLUGS = [
  ["", "none, wires go on"],
  ["dsub", "D-sub"],
  ["header", "header shell"],
  ["strip", "terminal strip"],
  ["punch", "punch block, 25 pairs"],
] as const;

export function LoomFields({ loom }: { loom: HarnessView["looms"][number] }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const module = design.modules.find((m) => m.id === loom.module);
  if (!module) return null;
  const { trunk, leaves, service, signals, power, at } = module.loom;
  const base = { do: "edit_loom", module: module.id } as const;
  return (
    <section aria-label="Loom">
      <h3 className="font-semibold">Loom</h3>
      {!signals && !power && (
        <p className="mt-1">
          {module.name} cannot be taken out without unsoldering yet.{" "}
          <Button
            look="solid"
            onClick={() => void send([{ ...base, signals: "dsub", power: "strip" }])}
            title="A D-sub for signals, a terminal strip for supplies, lamps and loads"
          >
            Two plugs
          </Button>
        </p>
      )}
      <div className="mt-1.5 grid grid-cols-2 gap-2">
        <ChoiceField
          label="Signals leave by"
          value={signals ?? ""}
          options={PLUGS}
          onCommit={(kind) => void send([{ ...base, signals: kind || null }])}
        />
        <ChoiceField
          label="Supplies and loads by"
          value={power ?? ""}
          options={PLUGS}
          onCommit={(kind) => void send([{ ...base, power: kind || null }])}
        />
        <ChoiceField
          label="Trunk"
          value={trunk}
          options={[
            ["across", "runs across"],
            ["up", "runs up"],
          ]}
          onCommit={(kind) => void send([{ ...base, trunk: kind, at: null }])}
        />
        <ChoiceField
          label="It leaves at the"
          value={leaves}
          options={[
            ["bottom", "bottom"],
            ["top", "top"],
            ["left", "left"],
            ["right", "right"],
          ]}
          onCommit={(side) => void send([{ ...base, leaves: side }])}
        />
        <LengthField
          label="Loop to swing it out"
          value={service}
          onCommit={(loop) => void send([{ ...base, service: loop }])}
        />
        <ChoiceField
          label="Supplies run"
          value={module.feeds}
          options={[
            ["bus", "from part to part"],
            ["star", "to each by itself"],
          ]}
          onCommit={(feeds) => void send([{ do: "edit_module", module: module.id, feeds }])}
        />
      </div>
      {at !== null && (
        <button
          type="button"
          className="mt-1.5 text-petrol underline"
          onClick={() => void send([{ ...base, at: null }])}
        >
          Trunk through the middle of its wires again
        </button>
      )}
      <p className="mt-1.5 text-faint">
        Left and right as seen from the front. What is dangerous to touch leaves by a strip of its own.
      </p>
    </section>
  );
}
