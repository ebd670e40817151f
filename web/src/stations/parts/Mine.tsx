/** A part of the builder's own: calliper readings, what follows from them at once, its cut-out and its odd figures. */
import type { PartSheet, Reading } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { ChoiceField, FigureField, LengthField, TextField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import type { Edit } from "./edit";
import { Combine, CutOut } from "./MineTools";
import { OwnLamp } from "./OwnLamp";
import { OwnTerminals } from "./OwnTerminals";
import { Readings } from "../../ui/Readings";

const NAMES: Record<Reading["of"], string> = {
  bush: "Bush or neck",
  nut: "Nut across corners",
  key_radius: "Key, radius",
  key_width: "Key, width",
  body: "Body, width",
  body_height: "Body, height",
  depth: "Depth behind plate",
  thread: "Thread, length",
  cover: "Knob or bezel",
};

const FITS = [
  ["snug", "snug"],
  ["free", "free"],
  ["painted", "painted"],
] as const;

type Change = (now: Reading) => Partial<Reading>;

interface Props {
  sheet: PartSheet;
  onPick: (part: string) => void;
}

export function Mine({ sheet, onPick }: Props) {
  const { id, design } = useDesign();
  const { send, sendFrom } = useChanges(id);
  const { part } = sheet;
  const here = design.parts.some((p) => p.id === part.id);
  if (!here) {
    return (
      <p className="mt-3 text-faint">
        One of yours, from another design. Choose it for a function to use it here.
      </p>
    );
  }
  const edit = (changes: Edit) => send([{ do: "edit_part", part: part.id, ...changes }]);
  const measure = (of: Reading["of"], change: Change) => {
    void sendFrom((now) => {
      const latest = now.design.parts.find((p) => p.id === part.id)?.readings ?? [];
      const known = latest.find((r) => r.of === of) ?? { of, values: [], fit: "free" as const };
      const changed: Reading = { ...known, ...change(known) };
      const others = latest.filter((r) => r.of !== of);
      const readings = changed.values.length ? [...others, changed] : others;
      return [{ do: "measure_part", part: part.id, readings }];
    });
  };
  return (
    <section aria-label="Measure yours" className="mt-4">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
        <TextField
          label="Name of this part"
          value={part.name}
          needed
          onCommit={(name) => void edit({ name })}
        />
        <Button
          look="quiet"
          disabled={sheet.used_by.length > 0}
          title={sheet.used_by.length > 0 ? "It is used; choose another part there first" : undefined}
          onClick={() => {
            onPick(part.base ?? "");
            void send([{ do: "remove_part", part: part.id }]);
          }}
        >
          Remove
        </Button>
      </div>
      <h3 className="mt-3 flex justify-between text-[12px]">
        Calliper, three readings{" "}
        <span className="font-normal text-faint">spread, and the sheet's figure</span>
      </h3>
      <ul>
        {sheet.measurable.map(({ of, sheet: stated, spread, disagree }) => (
          <ReadingRow
            key={of}
            of={of as Reading["of"]}
            stated={stated ?? null}
            spread={spread ?? null}
            disagree={disagree}
            reading={part.readings.find((r) => r.of === of)}
            onChange={(change) => measure(of as Reading["of"], change)}
          />
        ))}
      </ul>
      <Odd sheet={sheet} edit={(changes) => void edit(changes)} />
      <OwnTerminals sheet={sheet} edit={edit} />
      <CutOut edit={(changes) => void edit(changes)} />
      <Combine sheet={sheet} onPick={onPick} />
    </section>
  );
}

interface RowProps {
  of: Reading["of"];
  stated: number | null;
  spread: number | null;
  disagree: boolean;
  reading: Reading | undefined;
  onChange: (change: Change) => void;
}

function ReadingRow({ of, stated, spread, disagree, reading, onChange }: RowProps) {
  const values = reading?.values ?? [];
  const fitted = of === "bush" || of === "key_width";
  return (
    <li className="grid grid-cols-[72px_minmax(0,1fr)_54px_78px] items-center gap-1.5 border-t border-rule py-1">
      <span className="text-[12px]/[15px]">{NAMES[of]}</span>
      <Readings
        quiet
        label={NAMES[of]}
        values={values}
        onCommit={(edit) => onChange((now) => ({ values: edit(now.values) }))}
      />
      {fitted && values.length > 0 ? (
        <ChoiceField
          bare
          label={`${NAMES[of]}, fit`}
          value={reading?.fit ?? "free"}
          options={FITS}
          onCommit={(fit) => onChange(() => ({ fit }))}
        />
      ) : (
        <span />
      )}
      <span className="num text-right text-[11px]/[14px]">
        {spread !== null && (
          <span className={disagree ? "font-semibold text-judge" : "text-ok"}>spread {shown(spread, 2)}</span>
        )}
        <span className="block text-faint">{stated === null ? "–" : `sheet ${shown(stated, 2)}`}</span>
      </span>
    </li>
  );
}

const CABLES = [
  ["", "Not set"],
  ["back", "straight back"],
  ["left", "left"],
  ["right", "right"],
  ["top", "up"],
  ["bottom", "down"],
] as const;

function Odd({ sheet: { part }, edit }: { sheet: PartSheet; edit: (changes: Edit) => void }) {
  return (
    <div className="mt-3 grid grid-cols-3 gap-2">
      {part.key && (
        <FigureField
          label="Key direction"
          unit="°"
          value={part.key.angle}
          least={-360}
          most={360}
          onCommit={(key_angle) => edit({ key_angle })}
        />
      )}
      <LengthField label="Height in front" value={part.height} onCommit={(height) => edit({ height })} />
      <LengthField label="Plug or bend" value={part.plug} onCommit={(plug) => edit({ plug })} />
      <LengthField label="Clamps beside" value={part.clamp} onCommit={(clamp) => edit({ clamp })} />
      <LengthField
        label="Body off centre, right"
        value={part.behind_x}
        least={-500}
        onCommit={(behind_x) => edit({ behind_x })}
      />
      <LengthField
        label="Body off centre, up"
        value={part.behind_y}
        least={-500}
        onCommit={(behind_y) => edit({ behind_y })}
      />
      {part.cover.kind === "rect" && (
        <>
          <LengthField
            label="Bezel, width"
            value={part.cover.width}
            least={0.1}
            onCommit={(width) => part.cover.kind === "rect" && edit({ bezel: { ...part.cover, width } })}
          />
          <LengthField
            label="Bezel, height"
            value={part.cover.height}
            least={0.1}
            onCommit={(height) => part.cover.kind === "rect" && edit({ bezel: { ...part.cover, height } })}
          />
        </>
      )}
      <ChoiceField
        label="Cable leaves"
        value={part.cable}
        options={CABLES}
        onCommit={(cable) => edit({ cable })}
      />
      <FigureField
        label="Price, each"
        value={part.price / 100}
        most={100000}
        onCommit={(price) => edit({ price: Math.round(price * 100) })}
      />
      <FigureField
        label="Bought for each"
        value={part.times}
        whole
        least={1}
        most={4}
        onCommit={(times) => edit({ times })}
      />
      <OwnLamp part={part} edit={edit} />
      <label className="col-span-3 flex items-center gap-2 text-[12px]">
        <input
          type="checkbox"
          checked={part.sample_first}
          onChange={(event) => edit({ sample_first: event.target.checked })}
        />
        buy one first and try it
      </label>
    </div>
  );
}
