/** The modules, and the opening split into them. */
import { useState } from "react";
import type { BriefView, ModuleView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { LengthField, TextField, understood } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { Layers } from "./Layers";
import { useBrief } from "./useBrief";
import { TakeAway } from "../../ui/TakeAway";

type Chain = NonNullable<BriefView["chain"]>;

export function Modules({ chain }: { chain: Chain | null }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const outline = useBrief().data?.module;
  const { gap } = view.design.brief;
  const add = () => {
    const name = `Module ${view.modules.length + 1}`;
    if (outline) void send([{ do: "add_module", name, outline, x: gap, y: gap }]);
  };
  return (
    <>
      <section aria-label="Modules" className="mt-5">
        <p className="flex items-center justify-between">
          <b className="text-[12px]">Modules</b> <Button onClick={add}>Add a module</Button>
        </p>
        {view.modules.map((module) => (
          <ModuleRow key={module.id} module={module} />
        ))}
        {chain && <ChainLine chain={chain} />}
        <Split />
      </section>
      <Layers />
    </>
  );
}

function ModuleRow({ module }: { module: ModuleView }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const size = (width: number, height: number) =>
    void send([{ do: "resize_module", module: module.id, width, height }]);
  return (
    <div className="mt-1.5 grid grid-cols-5 items-start gap-1.5">
      <div className="col-span-5 grid grid-cols-[minmax(0,1fr)_24px] gap-1.5">
        <TextField
          bare
          label="Name of the module"
          value={module.name}
          needed
          onCommit={(name) => void send([{ do: "edit_module", module: module.id, name }])}
        />
        <TakeAway what={module.name} onTake={() => void send([{ do: "remove_module", module: module.id }])} />
      </div>
      {["width", "height", "x", "y", "± wide"].map((head) => (
        <span key={head} className="-mb-1 text-[11px] text-faint" aria-hidden="true">
          {head}
        </span>
      ))}
      <LengthField
        bare
        label={`${module.name}, width`}
        value={module.width}
        least={5}
        onCommit={(width) => size(width, module.height)}
      />
      <LengthField
        bare
        label={`${module.name}, height`}
        value={module.height}
        least={5}
        onCommit={(height) => size(module.width, height)}
      />
      {(["x", "y"] as const).map((axis) => (
        <LengthField
          bare
          key={axis}
          label={`${module.name}, ${axis} in the opening`}
          value={module[axis]}
          least={-5000}
          onCommit={(mm) => void send([{ do: "edit_module", module: module.id, [axis]: mm }])}
        />
      ))}
      <LengthField
        bare
        label={`${module.name}, tolerance of its width`}
        value={view.design.modules.find((p) => p.id === module.id)?.tolerance ?? 0}
        onCommit={(tolerance) => void send([{ do: "edit_module", module: module.id, tolerance }])}
      />
    </div>
  );
}

/** What the modules leave for the gaps: as drawn, likely, and at worst. */
function ChainLine({ chain }: { chain: Chain }) {
  const cells = [
    ["as drawn", chain.clear],
    [`likely, − ${shown(chain.likely, 2)}`, chain.clear_likely],
    [`at worst, − ${shown(chain.worst, 2)}`, chain.clear_worst],
  ] as const;
  return (
    <p className="mt-2 text-[12px]">
      <span className="text-faint">
        {shown(chain.taken)} of modules in {shown(chain.opening)}, left for the gaps:
      </span>
      {cells.map(([words, mm]) => (
        <span key={words} className="ml-3 inline-block">
          <span className={`num ${mm < 0 ? "font-semibold text-must" : ""}`}>{shown(mm, 2)}</span>{" "}
          <span className="text-faint">{words}</span>
        </span>
      ))}
    </p>
  );
}

/** The opening divided anew: a name a module, left to right. */
function Split() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [names, setNames] = useState<string | null>(null);
  const [seam, setSeam] = useState(0.4);
  if (names === null) {
    return (
      <Button
        look="quiet"
        className="mt-1 -ml-2"
        onClick={() => setNames(view.modules.map((p) => p.name).join(", ") || "Left, Centre, Right")}
      >
        Split the opening again…
      </Button>
    );
  }
  const wanted = names
    .split(",")
    .map((n) => n.trim())
    .filter(Boolean);
  return (
    <div data-fields="" className="mt-2 rounded border border-rule bg-sheet p-2.5">
      <div className="grid grid-cols-[minmax(0,3fr)_minmax(0,1fr)] gap-2">
        <TextField label="Modules from left to right" value={names} needed onCommit={setNames} />
        <LengthField label="Gap between modules" value={seam} onCommit={setSeam} />
      </div>
      <p className="mt-1 text-[12px] text-faint">
        Equal widths inside the gap. Parts on the plates go back to the tray; undo brings them back.
      </p>
      <div className="mt-2 flex gap-2">
        <Button
          look="solid"
          onClick={(event) => {
            void understood(event.currentTarget.closest("[data-fields]")).then((fine) => {
              if (!fine) return;
              setNames(null);
              void send([{ do: "split_opening", names: wanted, shares: [], seam }]);
            });
          }}
        >
          Split into {wanted.length}
        </Button>
        <Button look="quiet" onClick={() => setNames(null)}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
