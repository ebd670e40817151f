/** A part's sheet: front, side in this panel's layers, every dimension with its source and what follows from it. */
import { choosePart } from "../../api/commands";
import type { Drawer, Fn, Part, PartSheet, Shape } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Outline, PartFront, reach } from "../../panel/shapes";
import { Button } from "../../ui/Button";
import { shown } from "../../ui/figures";
import { SideView } from "./SideView";

interface Props {
  sheet: PartSheet;
  drawer: Drawer;
  chosen: Fn | undefined;
}

export function Sheet({ sheet, drawer, chosen }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const { part } = sheet;
  return (
    <div className="p-5">
      <h2 className="text-[15px]">{part.name}</h2>
      <p className="text-faint">{part.summary}</p>
      <div className="mt-3 grid grid-cols-2 items-center gap-2 rounded bg-card p-3">
        <FrontView part={part} />
        <SideView side={sheet.side} freeDepth={drawer.free_depth} />
        <p className="text-center text-[11px] text-faint">from the front</p>
        <p className="text-center text-[11px] text-faint">from the side, in this panel's layers</p>
      </div>
      {chosen && chosen.part !== part.id && (
        <Button look="solid" className="mt-4" onClick={() => void send([choosePart(chosen.id, part.id)])}>
          Choose it for {chosen.name}
        </Button>
      )}
      {chosen && chosen.part === part.id && (
        <p className="mt-4 font-semibold text-ok">✓ Chosen for {chosen.name}</p>
      )}
      {!chosen && (
        <p className="mt-4 text-faint">Select a function, at Brief or with /, to choose this part for it.</p>
      )}
      <Dimensions sheet={sheet} drawer={drawer} />
      {part.family === "emergency" && (
        <p className="mt-4 border-l-[3px] border-stop pl-2.5 text-[12px]/[16px]">
          A real emergency stop breaks the power through its own hard-wired contact. It never passes a
          microcontroller; the line here only reports it.
        </p>
      )}
      <h3 className="mt-5 text-[12px]">Used by</h3>
      <ul className="mt-1 flex flex-wrap gap-x-3">
        {design.functions
          .filter((f) => sheet.used_by.includes(f.id))
          .map((f) => (
            <li key={f.id}>
              <button
                type="button"
                className="text-petrol underline"
                onClick={() => useSession.getState().select([f.id])}
              >
                {f.name}
              </button>
            </li>
          ))}
        {sheet.used_by.length === 0 && <li className="text-faint">nothing yet</li>}
      </ul>
    </div>
  );
}

function FrontView({ part }: { part: Part }) {
  const size =
    Math.max(...[part.cover, part.body, part.hole].map(reach).flatMap((s) => [s.width, s.height])) / 2 + 3;
  return (
    <svg
      viewBox={`${-size} ${-size} ${2 * size} ${2 * size}`}
      className="h-40 w-full"
      role="img"
      aria-label={`${part.name} from the front`}
    >
      <g transform="scale(1 -1)">
        <Outline
          shape={part.body}
          fill="var(--desk)"
          stroke="var(--faint)"
          strokeWidth={size / 120}
          strokeDasharray={`${size / 20} ${size / 30}`}
        />
        <PartFront front={part.front} />
        <Outline shape={part.hole} fill="none" stroke="var(--petrol)" strokeWidth={size / 60} />
        {part.key && (
          <g transform={`rotate(${part.key.angle}) translate(${part.key.radius} 0)`}>
            <rect
              x={-part.key.length / 2}
              y={-part.key.width / 2}
              width={part.key.length}
              height={part.key.width}
              fill="#B3261E"
            />
          </g>
        )}
      </g>
    </svg>
  );
}

const said = (shape: Shape): string =>
  shape.kind === "circle" ? `⌀ ${shape.diameter}` : `${shape.width} × ${shape.height}`;

function Dimensions({ sheet, drawer }: { sheet: PartSheet; drawer: Drawer }) {
  const { part } = sheet;
  const layer = (name: string) => drawer.stack.find((l) => l.id === name)?.name.toLowerCase() ?? name;
  const where = (purpose: string) =>
    [...new Set(sheet.cutouts.filter((c) => c.purpose === purpose).map((c) => layer(c.layer)))].join(", ");
  const rows: {
    name: string;
    value: string;
    follows: string;
    source: string | undefined;
    wrong?: boolean;
  }[] = [
    {
      name: "Hole",
      value: said(part.hole),
      follows: where("hole") || where("window"),
      source: sheet.sources["hole"],
    },
  ];
  if (part.nut_bore)
    rows.push({
      name: "Nut",
      value: said(part.nut_bore),
      follows: where("nut") ? `hidden in ${where("nut")}` : "on the face",
      source: sheet.sources["nut_bore"],
    });
  if (part.recess)
    rows.push({
      name: "Recess",
      value: said(part.recess),
      follows: where("recess"),
      source: sheet.sources["recess"],
    });
  if (part.key)
    rows.push({
      name: "Key slot",
      value: `${part.key.length} × ${part.key.width}`,
      follows: `${part.key.angle}°, ${where("key")}`,
      source: sheet.sources["key"],
    });
  if (part.bush)
    rows.push({
      name: "Thread",
      value: `${part.bush.length} long`,
      follows:
        sheet.thread_needed > part.bush.length + 0.01
          ? `${shown(sheet.thread_needed - part.bush.length)} short`
          : `${shown(sheet.thread_needed)} needed`,
      source: sheet.sources["bush"],
      wrong: sheet.thread_needed > part.bush.length + 0.01,
    });
  rows.push(
    { name: "Body", value: said(part.body), follows: "kept free behind", source: sheet.sources["body"] },
    {
      name: "Depth",
      value: shown(sheet.depth_needed),
      follows: `of ${shown(drawer.free_depth)} free, with wires`,
      source: sheet.sources["depth"],
      wrong: sheet.depth_needed > drawer.free_depth,
    },
  );
  if (part.detents)
    rows.push({
      name: "Step",
      value: `${part.detents.step}°`,
      follows: `${part.detents.ways} ways`,
      source: sheet.sources["detents"],
    });
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
            <td className={`py-1.5 text-[12px] ${row.wrong ? "font-semibold text-stop" : ""}`}>
              {row.follows}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
