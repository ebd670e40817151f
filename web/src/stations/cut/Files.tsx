/** The files of a module, the holes to drill, the cautions, and what the job sheet will say is unsettled. */
import type { CutModule, CutView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Archive } from "./Archive";
import { Colours } from "./Colours";
import { Mark } from "../../ui/Mark";

const LINK = "text-petrol underline hover:no-underline";

export function Files({ cut, module }: { cut: CutView; module: CutModule }) {
  const { id } = useDesign();
  const base = `/api/designs/${id}/cut`;
  return (
    <section aria-label="Files" className="overflow-y-auto border-l border-rule bg-sheet p-4">
      <h2 className="text-[13px]">Files</h2>
      <Archive />
      <p className="mt-2">
        Job sheet:{" "}
        <a className={LINK} href={`${base}/job-sheet.pdf`} download>
          to print
        </a>
        ,{" "}
        <a className={LINK} href={`${base}/job-sheet.txt`} download>
          as text
        </a>
      </p>
      <p className="mt-1">
        All pieces:{" "}
        {["cut-list.csv", "hole-table.csv", "drill-schedule.csv"].map((name, n) => (
          <span key={name}>
            {n > 0 && ", "}
            <a className={LINK} href={`${base}/_lists/${name}`} download>
              {name.replace("-", " ").replace(".csv", "")}
            </a>
          </span>
        ))}
      </p>
      <h3 className="mt-4 text-[12px]">{module.name}</h3>
      <table className="mt-1 w-full">
        <tbody>
          {byStem(module.files).map(([stem, files]) => (
            <tr key={stem} className="border-t border-rule">
              <td className="py-1">{stem}</td>
              {files.map((file) => (
                <td key={file} className="py-1 text-right">
                  <a
                    className={LINK}
                    href={`${base}/${module.id}/${file}`}
                    download
                    aria-label={`${module.name}, ${file}`}
                  >
                    {shortName(file)}
                  </a>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <Colours />
      <Unsettled lines={cut.unsettled} />
      <h3 className="mt-5 text-[12px]">Round holes</h3>
      <table className="num mt-1 w-full">
        <tbody>
          {module.drills.map((d) => (
            <tr key={`${d.sheet} ${d.diameter}`} className="border-t border-rule">
              <td className="py-0.5">{d.many} ×</td>
              <td className="text-right">⌀ {d.diameter}</td>
              <td className="pl-3 font-sans text-faint">{d.sheet}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h3 className="mt-5 text-[12px]">Before you cut</h3>
      <ul className="mt-1 space-y-1.5 text-[12px]/[16px] text-faint">
        {cut.cautions.map((caution) => (
          <li key={caution} className="border-l-[3px] border-judge pl-2.5">
            {caution}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is printed at 1:1, once a paper: file names end with the paper. */
const PRINTED = {
  template: "template, 1:1",
  "mock-up-face": "mock-up, face",
  "mock-up-rear": "mock-up, rear",
  section: "section",
  "lens-inserts": "lens inserts, mirrored",
  "holes-from-behind": "holes, from behind",
  "words-vinyl": "words in adhesive film, 1:1",
  "words-film": "words on film, mirrored, 1:1",
};

const shortName = (file: string) =>
  file.endsWith("-a4.pdf")
    ? "A4"
    : file.endsWith("-letter.pdf")
      ? "Letter"
      : file.split(".").pop()?.toUpperCase();

function byStem(files: readonly string[]): [string, string[]][] {
  const stems = new Map<string, string[]>();
  for (const file of files) {
    const printed = Object.entries(PRINTED).find(([stem]) => file.startsWith(`${stem}-`));
    const own = file.slice(0, file.lastIndexOf(".")).replace(/-chain-drilling-\w+$/, ", chain drilling, 1:1");
    const stem = printed?.[1] ?? own;
    stems.set(stem, [...(stems.get(stem) ?? []), file]);
  }
  return [...stems];
}

function Unsettled({ lines }: { lines: CutView["unsettled"] }) {
  return (
    <>
      <h3 className="mt-5 text-[12px]">The job sheet will say</h3>
      {lines.length === 0 ? (
        <p className="mt-1 flex items-center gap-2 text-ok">
          <Mark kind="settled" /> Nothing is left to fix or to judge.
        </p>
      ) : (
        <ul className="mt-1 space-y-1 text-[12px]/[16px]">
          {lines.map((line) => (
            <li key={line.words} className="grid grid-cols-[16px_1fr]">
              <Mark kind={line.severity} className="mt-1" />
              {line.words}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
