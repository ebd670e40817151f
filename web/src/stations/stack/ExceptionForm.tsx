/** Named exceptions of a layer: an opening more, or one function's openings left out, each with its reason. */
import { useEffect, useRef, useState } from "react";
import type { Layer, StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import { ChoiceField, LengthField, TextField, understood } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";

export function ExceptionForm({ stack, layer }: { stack: StackView; layer: Layer }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const [open, setOpen] = useState(false);
  const mine = layer.features.filter((f) => f.module === stack.module);
  const name = (ident: string) => view.design.functions.find((f) => f.id === ident)?.name ?? ident;
  const at = { module: stack.module, layer: layer.id };
  return (
    <div className="text-[11px]">
      {mine.map((f) => (
        <div key={f.id} className="flex items-start gap-1.5">
          <span className="min-w-0 flex-1">
            <b>{f.without ? `Without ${name(f.without)}` : "An opening more"}</b>
            {f.shape && (
              <span className="num">
                {" "}
                at {shown(f.x)}, {shown(f.y)}
              </span>
            )}
            <span className="block text-faint">{f.reason}</span>
          </span>
          <TakeAway
            what={`the exception “${f.reason}”`}
            onTake={() => void send([{ do: "remove_feature", ...at, feature: f.id }])}
          />
        </div>
      ))}
      {open ? (
        <NewException stack={stack} layer={layer} onDone={() => setOpen(false)} />
      ) : (
        <Button look="quiet" onClick={() => setOpen(true)}>
          Add an exception…
        </Button>
      )}
    </div>
  );
}

/** What kind, where, how large, and why. */
function NewException({ stack, layer, onDone }: { stack: StackView; layer: Layer; onDone: () => void }) {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const placed = view.design.functions.filter((f) => f.place?.module === stack.module);
  const [kind, setKind] = useState<"hole" | "slot" | "without">("hole");
  const [drawn, setSpot] = useState({ x: stack.width / 2, y: stack.height / 2, width: 8, height: 8 });
  const [left, setLeft] = useState(placed[0]?.id ?? "");
  const [reason, setReason] = useState("");
  const latest = useRef({ spot: drawn, reason }); // typed right before, it is read only by then
  useEffect(() => {
    latest.current = { spot: drawn, reason };
  });
  const add = async (form: Element | null) => {
    if (!(await understood(form))) return;
    const { spot } = latest.current;
    const at = {
      do: "add_feature",
      module: stack.module,
      layer: layer.id,
      reason: latest.current.reason,
      x: 0,
      y: 0,
      turn: 0,
    } as const;
    const shape =
      kind === "hole"
        ? ({ kind: "circle", diameter: spot.width } as const)
        : ({ kind: "rect", width: spot.width, height: spot.height, radius: 0 } as const);
    const batch = kind === "without" ? { ...at, without: left } : { ...at, shape, x: spot.x, y: spot.y };
    void send([batch]).then(onDone);
  };
  return (
    <div data-fields="" className="space-y-1.5 rounded border border-rule bg-sheet p-2">
      <ChoiceField
        label="Exception"
        value={kind}
        options={
          [
            ["hole", "A round opening more"],
            ["slot", "A square opening more"],
            ...(placed.length > 0 ? ([["without", "Leave one function's openings out"]] as const) : []),
          ] as const
        }
        onCommit={setKind}
      />
      {kind === "without" ? (
        <ChoiceField
          label="Function"
          value={left}
          options={placed.map((f) => [f.id, f.name] as const)}
          onCommit={setLeft}
        />
      ) : (
        <div className="grid grid-cols-2 gap-1.5">
          <LengthField label="x" value={drawn.x} least={-1000} onCommit={(x) => setSpot({ ...drawn, x })} />
          <LengthField label="y" value={drawn.y} least={-1000} onCommit={(y) => setSpot({ ...drawn, y })} />
          <LengthField
            label={kind === "hole" ? "Diameter" : "Width"}
            value={drawn.width}
            least={0.1}
            onCommit={(width) => setSpot({ ...drawn, width })}
          />
          {kind === "slot" && (
            <LengthField
              label="Height"
              value={drawn.height}
              least={0.1}
              onCommit={(height) => setSpot({ ...drawn, height })}
            />
          )}
        </div>
      )}
      <TextField label="Why" value={reason} needed hint="wire to the gong" onCommit={setReason} />
      <div className="flex gap-2">
        <Button look="solid" onClick={(event) => void add(event.currentTarget.closest("[data-fields]"))}>
          Add
        </Button>
        <Button look="quiet" onClick={onDone}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
