/** The workshop: machines with their beds, sheets, supplies, boards; and which module fits which bed. */
import type { Command, DesignView, Stock } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { useMaterials } from "./useMaterials";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, LengthField } from "../../ui/fields";
import { many } from "../../ui/figures";
import { FromShelf } from "./FromShelf";
import { Machines } from "./Machines";
import { TakeAway } from "../../ui/TakeAway";
import { useBrief } from "./useBrief";
import { Supplies } from "./Supplies";

type Send = (command: Command) => void;

export function Workshop() {
  const view = useDesign();
  const changes = useChanges(view.id);
  const follows = useBrief();
  const send: Send = (command) => void changes.send([command]);
  return (
    <section aria-label="Workshop">
      <Machines view={view} send={send} beds={follows.data?.beds ?? []} />
      <Sheets view={view} send={send} />
      <Supplies view={view} send={send} />
      <FromShelf view={view} send={send} />
      <p className="mt-5 border-l-[3px] border-must pl-2.5 text-[12px]/[16px]">
        Never laser PVC or vinyl: it gives off chlorine. Never leave a laser alone; keep an extinguisher at
        hand, fumes drawn off. Eye and ear protection at mill, drill and saw; clamp the work.
      </p>
    </section>
  );
}

interface Props {
  view: DesignView;
  send: Send;
}

function Sheets({ view, send }: Props) {
  const { stock } = view.design.workshop;
  const usual = useTrade()?.sheet;
  const add = () => {
    if (usual) send({ do: "add_stock", ...usual });
  };
  return (
    <section aria-label="Sheets in stock" className="mt-5">
      <p className="flex items-center justify-between">
        <b className="text-[12px]">Sheets in stock</b>{" "}
        <Button disabled={!usual} onClick={add}>
          Add a sheet
        </Button>
      </p>
      {stock.map((sheet) => (
        <SheetRow key={sheet.id} sheet={sheet} send={send} />
      ))}
    </section>
  );
}

function SheetRow({ sheet, send }: { sheet: Stock; send: Send }) {
  const set = (changes: Partial<Omit<Stock, "id">>) =>
    send({ do: "edit_stock", stock: sheet.id, ...changes });
  const what = `${sheet.thickness} mm ${sheet.material}`;
  return (
    <div
      role="group"
      aria-label={what}
      className="mt-2 grid grid-cols-[repeat(4,minmax(0,1fr))_30px_24px] items-end gap-1.5 rounded border border-rule bg-sheet p-2.5"
    >
      <div className="col-span-2">
        <ChoiceField
          label="Material"
          value={sheet.material}
          options={useMaterials()}
          onCommit={(material) => set({ material })}
        />
      </div>
      <LengthField
        label="Thickness"
        value={sheet.thickness}
        least={0.1}
        onCommit={(thickness) => set({ thickness })}
      />
      <FigureField
        whole
        label="Sheets"
        value={sheet.count}
        most={10000}
        onCommit={(count) => set({ count })}
      />
      <input
        type="color"
        aria-label={`${what}, colour`}
        className="h-8 w-[30px] rounded border border-faint bg-sheet"
        value={sheet.colour}
        onChange={(event) => set({ colour: event.target.value.toUpperCase() })}
      />
      <TakeAway
        what={what}
        onTake={() => send({ do: "remove_from_workshop", kind: "stock", id: sheet.id })}
      />
      <div className="col-span-6 grid grid-cols-[4fr_4fr_3fr] gap-1.5">
        {(["width", "height"] as const).map((key) => (
          <LengthField
            key={key}
            label={key === "width" ? "Width" : "Height"}
            value={sheet[key]}
            least={0.1}
            onCommit={(mm) => set({ [key]: mm })}
          />
        ))}
        <FigureField
          label="Price of one"
          value={sheet.price / 100}
          most={1e6}
          onCommit={(price) => set({ price: Math.round(price * 100) })}
        />
      </div>
      <Blank sheet={sheet} set={set} />
    </div>
  );
}

/** Which way its grain runs, and the holes that it has already: an old plate, a cabinet's side. */
function Blank({ sheet, set }: { sheet: Stock; set: (changes: Partial<Omit<Stock, "id">>) => void }) {
  const holes = sheet.holes ?? [];
  return (
    <details className="col-span-6 text-[12px]">
      <summary className="cursor-pointer">
        Grain and old holes{holes.length > 0 ? `: ${many(holes.length, "hole")}` : ""}
      </summary>
      <div className="mt-2 w-44">
        <ChoiceField
          label="Grain"
          value={sheet.grain ?? "none"}
          options={GRAINS}
          onCommit={(grain) => set({ grain })}
        />
      </div>
      {holes.map((hole, n) => (
        <div key={n} className="mt-1.5 grid grid-cols-[repeat(3,minmax(0,1fr))_24px] items-end gap-1.5">
          {(["x", "y", "diameter"] as const).map((field) => (
            <LengthField
              key={field}
              label={`Old hole ${n + 1}, ${field}`}
              bare
              least={field === "diameter" ? 0.1 : 0}
              value={hole[field]}
              onCommit={(mm) => set({ holes: holes.map((h, k) => (k === n ? { ...h, [field]: mm } : h)) })}
            />
          ))}
          <TakeAway
            what={`old hole ${n + 1}`}
            onTake={() => set({ holes: holes.filter((_, k) => k !== n) })}
          />
        </div>
      ))}
      <p className="mt-1 text-[11px] text-faint">
        From the sheet&rsquo;s lower left corner: x, y and diameter. Nothing is laid over an old hole.
      </p>
      <Button
        className="mt-1.5"
        onClick={() => set({ holes: [...holes, { x: sheet.width / 2, y: sheet.height / 2, diameter: 10 }] })}
      >
        Add an old hole
      </Button>
    </details>
  );
}

const GRAINS = [
  ["none", "none"],
  ["along", "along its width"],
  ["across", "across its width"],
] as const;
