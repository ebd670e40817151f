/** What coupons showed: kerf and fit for each machine and kind of sheet, used from then on. */
import type { SheetLine, SheetsView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { LengthField } from "../../ui/fields";
import { shown } from "../../ui/figures";

/** A coupon by the name of its files: what it is, and how it is read. */
const COUPONS = [
  ["coupon", "Holes", "Measure one hole, and the piece that fell out of it: kerf is half their difference."],
  ["depth", "Depths", "Which depth reads well, and feels right under a finger?"],
  ["slots", "Slots", "Push a scrap of the sheet, or the clip, in: which one sits without play?"],
  ["paint", "Paint", "None to three coats over a lamp: which is dark, and do the letters still read?"],
] as const;

export function Coupons({ sheets }: { sheets: SheetsView }) {
  const kinds = new Map<string, SheetLine>();
  for (const sheet of sheets.sheets) {
    const key = `${sheet.machine} ${sheet.material} ${sheet.thickness}`;
    if (!kinds.has(key)) kinds.set(key, sheet);
  }
  if (kinds.size === 0)
    return <p className="p-3.5 text-faint">Nothing is cut by a machine yet: no coupon to cut first.</p>;
  return (
    <div>
      <p className="px-3.5 py-2 text-[12px]/[17px] text-faint">
        Cut coupons of each sheet first, from the sheet itself. What you type here is used in every file from
        then on.
      </p>
      {[...kinds.values()].map((sheet) => (
        <Kind key={sheet.id} sheet={sheet} />
      ))}
    </div>
  );
}

function Kind({ sheet }: { sheet: SheetLine }) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const known = design.cutting?.fitted?.find(
    (f) =>
      f.machine === sheet.machine &&
      f.material === sheet.material &&
      Math.abs(f.thickness - sheet.thickness) < 1e-6,
  );
  const of = { machine: sheet.machine, material: sheet.material, thickness: sheet.thickness };
  const log = (what: { kerf?: number; wider?: number; engraved?: number }) =>
    void send([{ do: "log_fit", ...of, ...what }]);
  return (
    <div className="border-t border-rule px-3.5 py-2.5">
      <h3 className="font-semibold">
        {sheet.machine_name}, {sheet.material_name.toLowerCase()} {shown(sheet.thickness)} mm
      </h3>
      <p className={`text-[11px] ${sheet.tried ? "text-ok" : "text-judge"}`}>
        {sheet.kind === "mill"
          ? "A mill's cut is as wide as its cutter"
          : sheet.tried
            ? "Kerf measured"
            : "Kerf not measured on this sheet: the machine's usual one is used"}
      </p>
      <dl className="mt-1 space-y-1 text-[11px]/[15px]">
        {COUPONS.filter(([name]) => sheet.coupons.includes(name)).map(([name, what, how]) => (
          <div key={name}>
            <dt className="flex justify-between gap-2">
              <span className="text-[12px]">{what}</span>
              <span className="num flex gap-x-2.5">
                {(name === "coupon" ? ["svg", "dxf", "nc"] : ["svg", "nc"]).map((kind) => (
                  <a
                    key={kind}
                    className="text-petrol underline hover:no-underline"
                    href={`/api/designs/${id}/sheets/${sheet.id}/${name}.${kind}`}
                    aria-label={`${what}, ${sheet.title}, ${kind}`}
                    download
                  >
                    {kind}
                  </a>
                ))}
              </span>
            </dt>
            <dd className="text-faint">{how}</dd>
          </div>
        ))}
      </dl>
      <div className="mt-2 grid grid-cols-2 gap-2">
        {sheet.kind === "laser" && (
          <LengthField label="Kerf" value={known?.kerf ?? sheet.kerf} onCommit={(kerf) => log({ kerf })} />
        )}
        <LengthField
          label="Holes wider by"
          value={known?.wider ?? 0}
          least={-2}
          onCommit={(wider) => log({ wider })}
        />
        <LengthField
          label="Engraving, deep"
          value={known?.engraved ?? sheet.engraved}
          onCommit={(engraved) => log({ engraved })}
        />
      </div>
      {known && (
        <Button className="mt-2" onClick={() => void send([{ do: "forget_fit", ...of }])}>
          Forget this coupon
        </Button>
      )}
    </div>
  );
}
