/** Every dimension with its source and what follows from it in this panel's layers. */
import type { Drawer, PartSheet, Shape } from "../../api/types";
import { reach } from "../../panel/shapes";
import { shown } from "../../ui/figures";

const figure = (value: number) => String(Math.round(value * 100) / 100);

const said = (shape: Shape): string => {
  if (shape.kind === "circle") return `⌀ ${figure(shape.diameter)}`;
  const { width, height } = reach(shape);
  return `${figure(width)} × ${figure(height)}`;
};

interface Row {
  name: string;
  value: string;
  follows: string;
  source: string | undefined;
  wrong?: boolean;
}

interface Props {
  sheet: PartSheet;
  drawer: Drawer;
}

export function Dimensions({ sheet, drawer }: Props) {
  const rows = [...openings(sheet), ...behind(sheet, drawer), ...electric(sheet)];
  return (
    <table className="mt-5 w-full border-collapse text-left">
      <thead>
        <tr className="text-[11px] text-faint">
          <th className="pb-1 font-normal">dimension, mm</th>
          <th className="pb-1 font-normal">figure</th>
          <th className="pb-1 font-normal">what follows</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.name} className="border-t border-rule align-top">
            <td className="py-1.5 pr-2">
              {row.name}
              <span className="block text-[11px]/[14px] text-faint">{row.source}</span>
            </td>
            <td className="num py-1.5 pr-3">{row.value}</td>
            <td className={`py-1.5 text-[12px] ${row.wrong ? "font-semibold text-must" : ""}`}>
              {row.follows}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function openings({ part, cutouts, sources }: PartSheet): Row[] {
  const where = (purpose: string) =>
    [...new Set(cutouts.filter((c) => c.purpose === purpose).map((c) => c.layer))].join(", ");
  const rows: Row[] = [
    {
      name: "Hole",
      value: said(part.hole),
      follows: where("hole") || where("window"),
      source: sources["hole"],
    },
  ];
  if (part.nut_bore)
    rows.push({
      name: "Nut",
      value: said(part.nut_bore),
      follows: where("nut") ? `hidden in ${where("nut")}` : "on the face",
      source: sources["nut_bore"],
    });
  if (part.recess)
    rows.push({
      name: "Recess",
      value: said(part.recess),
      follows: where("recess"),
      source: sources["recess"],
    });
  if (part.key)
    rows.push({
      name: "Key slot",
      value: `${figure(part.key.length)} × ${figure(part.key.width)}`,
      follows: `${figure(part.key.angle)}°, ${figure(part.key.radius)} out, ${where("key")}`,
      source: sources["key"],
    });
  if (part.extras.length > 0)
    rows.push({
      name: "Further openings",
      value: String(part.extras.length),
      follows: "through every layer",
      source: undefined,
    });
  return rows;
}

function behind(sheet: PartSheet, drawer: Drawer): Row[] {
  const { part, sources, thread_needed, thread_short, depth_needed, solid } = sheet;
  const rows: Row[] = [];
  if (part.bush)
    rows.push({
      name: "Thread",
      value: `${figure(part.bush.length)} long`,
      follows:
        thread_short > 0
          ? `${shown(thread_needed - part.bush.length)} short`
          : `${shown(thread_needed)} needed`,
      source: sources["bush"],
      wrong: thread_short > 0,
    });
  rows.push(
    {
      name: "Body",
      value: said(part.body),
      follows: part.clamp ? `and ${figure(part.clamp)} for clamps, kept free` : "kept free behind",
      source: sources["body"],
    },
    {
      name: "Depth",
      value: shown(depth_needed),
      follows: `of ${shown(drawer.free_depth)} free, with wires`,
      source: sources["depth"],
      wrong: sheet.too_deep,
    },
  );
  if (part.sheet) {
    rows.push({
      name: "Sheet it takes",
      value: `${part.sheet.least}–${part.sheet.most}`,
      follows: `the plate is ${shown(solid)}`,
      source: sources["sheet"],
      wrong: !sheet.sheet_fits,
    });
  }
  return rows;
}

function electric({ part, sources }: PartSheet): Row[] {
  const rows: Row[] = [];
  if (part.detents)
    rows.push({
      name: "Step",
      value: `${part.detents.step}°`,
      follows: `${part.detents.ways} ways, ${part.detents.step * (part.detents.ways - 1)}° in all`,
      source: sources["detents"],
    });
  if (part.digits)
    rows.push({
      name: "Digits",
      value: String(part.digits.count),
      follows: `${part.digits.height} high, ${part.digits.pitch} apart`,
      source: sources["digits"],
    });
  if (part.rating)
    rows.push({
      name: "Switches",
      value: `${part.rating.amps} A`,
      follows: `at ${part.rating.volts} V ${part.rating.ac ? "AC" : "DC"}`,
      source: sources["rating"],
    });
  if (part.feed)
    rows.push({
      name: "Draws",
      value: `${part.feed.amps} A`,
      follows: `from ${part.feed.volts} V`,
      source: undefined,
    });
  if (part.terminals.length > 0)
    rows.push({
      name: "Terminals",
      value: String(part.terminals.length),
      follows: part.terminals.join(", "),
      source: [part.action, part.sealing, part.cable && `cable ${part.cable}`].filter(Boolean).join(", "),
    });
  return rows;
}
