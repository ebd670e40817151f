/** The case of a module: what it is made of, what it holds, and its cutting list. */
import { Link } from "wouter";
import type { Command, StackView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { many, shown } from "../../ui/figures";
import { ChoiceField, LengthField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { useStack } from "./store";

type Changes = Omit<Extract<Command, { do: "set_case" }>, "do" | "module">;
type Made = NonNullable<StackView["case"]>;

const WAYS = [
  ["sheet", "of sheet, cut"],
  ["printed", "printed"],
] as const;
const WALLS = (["back", "left", "right", "top", "bottom"] as const).map((wall) => [wall, wall] as const);

export function CaseForm({ stack }: { stack: StackView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const trade = useTrade();
  const set = (changes: Changes) => void send([{ do: "set_case", module: stack.module, ...changes }]);
  const made = stack.case;
  if (!made)
    return (
      <div className="space-y-2 p-3.5 text-[12px]">
        <p className="text-faint">
          A box behind the module, of sheet or printed: walls round its plate, a lip that stops light, vents,
          a hatch, and a way out for the wires. A panel in a console needs none.
        </p>
        <Button
          look="solid"
          onClick={() => {
            set({});
            useStack.getState().set({ view: "case" });
          }}
        >
          Give it a case
        </Button>
      </div>
    );
  const { case: box } = made;
  return (
    <div className="space-y-3 p-3.5 text-[12px]">
      <div className="grid grid-cols-2 gap-2">
        <div className="col-span-2">
          <ChoiceField label="Made" value={box.made} options={WAYS} onCommit={(way) => set({ made: way })} />
        </div>
        <ChoiceField
          label="Material"
          value={box.material}
          options={(trade?.materials ?? []).map((m) => [m.id, m.name] as const)}
          onCommit={(material) => set({ material })}
        />
        <LengthField
          label={box.made === "sheet" ? "Sheet" : "Walls"}
          value={box.thickness}
          least={0.5}
          onCommit={(thickness) => set({ thickness })}
        />
        <LengthField label="Room for wires" value={box.room} onCommit={(room) => set({ room })} />
        <LengthField label="Lip" value={box.lip} onCommit={(lip) => set({ lip })} />
        <LengthField label="Lamp shelf at 45°" value={box.shelf} onCommit={(shelf) => set({ shelf })} />
        <div className="space-y-1 pt-4">
          <Tick words="vents" on={box.vents} onFlip={(vents) => set({ vents })} />
          <Tick words="hatch" on={box.hatch} onFlip={(hatch) => set({ hatch })} />
        </div>
      </div>
      <Exits made={made} set={set} />
      <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-3 text-[11px]">
        <Sizes words="Inside" sizes={made.inside} />
        <Sizes words="Outside" sizes={made.outside} />
        <dt className="text-faint">Heat</dt>
        <dd className="num text-right">{shown(made.heat)} W</dd>
        <dt className="text-faint">Vents, each</dt>
        <dd className="num text-right">
          {Math.round(made.vent_made)} of {Math.round(made.vent_needed)} mm²
        </dd>
      </dl>
      <h3 className="text-[13px] font-semibold">
        {box.made === "sheet" ? "Cutting list" : made.printer ? `To print on ${made.printer}` : "To print"}
      </h3>
      {box.made === "printed" && (
        <p className="text-[11px] text-faint">
          Back down, without supports. Bosses take heat-set inserts; pieces are glued at their ribs, with pins
          of 1.75 mm filament. The files are at <Link href={`/d/${id}/cut`}>Cut</Link>.
        </p>
      )}
      <ul className="space-y-1.5">
        {made.printed.map((piece) => (
          <li key={piece.id}>
            <span className="block font-semibold">{piece.name}</span>
            <span className="num flex justify-between gap-2 text-[11px]">
              <span>{piece.size.map((s) => shown(s)).join(" × ")}</span>
              <span>{Math.round(piece.grams)} g solid</span>
            </span>
          </li>
        ))}
        {made.pieces.map((piece) => (
          <li key={piece.id}>
            <span className="flex justify-between gap-2">
              <span className="font-semibold">
                {piece.many > 1 ? `${piece.many} × ` : ""}
                {piece.name}
              </span>
              <span className="num whitespace-nowrap">
                {shown(piece.width)} × {shown(piece.height)}
              </span>
            </span>
            <span className="block text-[11px] text-faint">
              {piece.note}
              {piece.openings > 0 && `; ${many(piece.openings, "opening")}`}
            </span>
          </li>
        ))}
      </ul>
      <Button look="quiet" onClick={() => void send([{ do: "remove_case", module: stack.module }])}>
        Remove the case
      </Button>
    </div>
  );
}

function Sizes({ words, sizes }: { words: string; sizes: readonly number[] }) {
  return (
    <>
      <dt className="text-faint">{words}</dt>
      <dd className="num text-right">{sizes.map((s) => shown(s)).join(" × ")}</dd>
    </>
  );
}

function Tick({ words, on, onFlip }: { words: string; on: boolean; onFlip: (on: boolean) => void }) {
  return (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="accent-petrol"
        checked={on}
        onChange={(event) => onFlip(event.target.checked)}
      />
      {words}
    </label>
  );
}

function Exits({ made, set }: { made: Made; set: (changes: Changes) => void }) {
  const { exits } = made.case;
  const usual = useTrade()?.cable_exit;
  const change = (n: number, changes: Partial<(typeof exits)[number]>) =>
    set({ exits: exits.map((e, k) => (k === n ? { ...e, ...changes } : e)) });
  return (
    <div>
      <h3 className="mb-1 text-[13px] font-semibold">Cable exits</h3>
      <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,3fr)_minmax(0,4fr)_auto] items-center gap-1.5">
        {["wall", "wide", "along", ""].map((head) => (
          <span key={head} className="text-[11px] text-faint" aria-hidden="true">
            {head}
          </span>
        ))}
        {exits.map((out, n) => (
          <Exit
            key={n}
            n={n}
            out={out}
            onChange={(c) => change(n, c)}
            onTake={() => set({ exits: exits.filter((_, k) => k !== n) })}
          />
        ))}
      </div>
      <Button look="quiet" disabled={!usual} onClick={() => usual && set({ exits: [...exits, usual] })}>
        Add an exit
      </Button>
    </div>
  );
}

type Out = Made["case"]["exits"][number];

function Exit({
  n,
  out,
  onChange,
  onTake,
}: {
  n: number;
  out: Out;
  onChange: (changes: Partial<Out>) => void;
  onTake: () => void;
}) {
  const named = `exit ${n + 1}`;
  return (
    <>
      <ChoiceField
        bare
        label={`${named}, wall`}
        value={out.wall}
        options={WALLS}
        onCommit={(wall) => onChange({ wall })}
      />
      <LengthField
        bare
        label={`${named}, width`}
        value={out.diameter}
        least={1}
        onCommit={(diameter) => onChange({ diameter })}
      />
      <LengthField
        bare
        label={`${named}, from the end of the wall`}
        value={out.along}
        onCommit={(along) => onChange({ along })}
      />
      <TakeAway what={named} onTake={onTake} />
    </>
  );
}
