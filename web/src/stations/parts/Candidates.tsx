/** Ways to make a function, ranked by what each costs on this panel; one click chooses. */
import { choosePart, editFunction } from "../../api/commands";
import type { Candidate, Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { shown } from "../../ui/figures";
import { money } from "../../ui/money";
import { useCandidates } from "./useCandidates";

interface Props {
  fn: Fn;
  onPick: (part: string) => void;
}

export function Candidates({ fn, onPick }: Props) {
  const { design } = useDesign();
  const found = useCandidates(fn);
  const rows = found.data?.candidates ?? [];
  if (rows.length === 0) return null;
  return (
    <section aria-label={`Ways to make ${fn.name}`} className="mt-5">
      <h3 className="text-[12px]">For “{fn.name}” on this module</h3>
      <table className="mt-1 w-full border-collapse text-left text-[12px]">
        <thead>
          <tr className="text-[11px] text-faint">
            <th className="py-0.5 font-normal">part</th>
            <th className="py-0.5 pl-3 text-right font-normal">pins</th>
            <th className="py-0.5 pl-3 text-right font-normal">wires</th>
            <th className="py-0.5 pl-3 text-right font-normal">deep</th>
            <th className="py-0.5 pl-3 text-right font-normal">room</th>
            <th className="py-0.5 pl-3 text-right font-normal">price, {design.brief.currency}</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, 8).map((c) => (
            <Row key={`${c.part} ${c.scheme}`} candidate={c} fn={fn} onPick={onPick} />
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Row({ candidate: c, fn, onPick }: { candidate: Candidate; fn: Fn; onPick: Props["onPick"] }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const asNow = fn.scheme === c.scheme || (c.scheme === "direct" && fn.scheme !== "ladder");
  const now = fn.part === c.part && asNow;
  const choose = () => {
    onPick(c.part);
    const commands = [
      ...(fn.part === c.part ? [] : [choosePart(fn.id, c.part)]),
      ...(asNow ? [] : [editFunction(fn.id, { scheme: c.scheme === "ladder" ? "ladder" : "direct" })]),
    ];
    if (commands.length) void send(commands);
  };
  const pins = [c.pins && String(c.pins), c.analogue && `${c.analogue} A`].filter(Boolean).join(" + ") || "0";
  return (
    <tr className={`border-t border-rule align-top ${now ? "bg-wash" : ""}`}>
      <td className="py-1 pr-2">
        <button type="button" className="flex gap-2 text-left hover:underline" onClick={choose}>
          <span
            aria-hidden="true"
            className={`mt-1 size-2.5 shrink-0 rounded-full border border-petrol ${now ? "bg-petrol" : ""}`}
          />
          <span>
            {c.name}
            {c.scheme === "ladder" && <span className="text-faint">, ladder</span>}
            {now && <span className="sr-only">, chosen</span>}
            {c.misfits.length > 0 && (
              <span className="block text-[11px]/[14px] text-judge">{c.misfits.join("; ")}</span>
            )}
          </span>
        </button>
      </td>
      <td className="num py-1 pl-3 text-right">{pins}</td>
      <td className="num py-1 pl-3 text-right">{c.wires}</td>
      <td className={`num py-1 pl-3 text-right ${c.depth_left < 0 ? "text-must" : ""}`}>
        {shown(c.depth, 0)}
      </td>
      <td className="num py-1 pl-3 text-right">{shown(c.room, 0)}</td>
      <td className="num py-1 pl-3 text-right">{money(c.money)}</td>
    </tr>
  );
}
