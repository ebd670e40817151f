/** The ways to read or drive some functions, compared on this very panel; one press takes one up. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { Fn, WayOption } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { Tabs } from "../../ui/Tabs";
import { money } from "../../ui/money";
import { many, shown } from "../../ui/figures";

const WORDS: Record<WayOption["scheme"], string> = {
  direct: "each on a pin of its own",
  ladder: "one voltage over resistors",
  binary: "in binary over diodes",
  coder: "an input coder on its tags",
  matrix: "in the matrix, a diode each",
  "matrix-bare": "in a matrix without diodes",
  shift: "chain of 74HC165, 74HC595",
  expander: "MCP23017 on I²C",
  digits: "read-outs, or addressable lamps, in one chain",
};

type Who = "these" | "group" | "module";

export function Ways({ functions }: { functions: readonly Fn[] }) {
  const { id, revision, design } = useDesign();
  const { send } = useChanges(id);
  const [who, setWho] = useState<Who>("these");
  const first = functions[0];
  const wider = (test: (fn: Fn) => boolean) =>
    design.functions.filter((fn) => fn.place && fn.part && test(fn));
  const group = first?.group ? wider((fn) => fn.group === first.group) : [];
  const module = wider((fn) => fn.place?.module === first?.place?.module);
  const choices = [
    ["these", first && functions.length === 1 ? first.name : many(functions.length, "function")],
    ...(group.length > functions.length ? [["group", `${first?.group}, ${group.length}`] as const] : []),
    ...(module.length > functions.length ? [["module", `whole module, ${module.length}`] as const] : []),
  ] as const;
  const now = choices.some(([key]) => key === who) ? who : "these";
  const asked = (now === "group" ? group : now === "module" ? module : functions).map((fn) => fn.id);
  const found = useQuery({
    queryKey: ["ways", id, revision, asked],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/wire/schemes", {
          params: { path: { design_id: id }, query: { function: asked } },
        }),
      ),
    enabled: asked.length > 0,
    placeholderData: (before) => before,
  });
  const options = found.data?.options ?? [];
  const can = options.filter((option) => !option.not_for);
  const cannot = options.filter((option) => option.not_for);
  return (
    <section aria-label="Read or driven another way">
      <div className="flex flex-wrap items-end justify-between gap-x-4">
        <h3 className="text-[12px] font-semibold">Read or driven another way</h3>
        <Tabs label="For what" tabs={choices} now={now} onChange={setWho} className="h-6! px-0!" />
      </div>
      {options.length > 0 && (
        <table className="mt-1 w-full border-collapse text-left text-[12px]">
          <thead>
            <tr className="text-[11px] text-faint">
              <th className="py-0.5 font-normal">what it adds to the panel</th>
              {["pins", "wires", "joints", "parts", design.brief.currency, "minutes", "reads in"].map(
                (head) => (
                  <th key={head} className="py-0.5 pl-3 text-right font-normal whitespace-nowrap">
                    {head}
                  </th>
                ),
              )}
            </tr>
          </thead>
          <tbody>
            {can.map((option) => (
              <WayRow
                key={option.scheme}
                option={option}
                // What is still shown of other functions, or of an older revision, is not taken up.
                onTake={found.isPlaceholderData ? undefined : () => void send(option.commands)}
              />
            ))}
          </tbody>
        </table>
      )}
      {found.data && options.length === 0 && (
        <p className="mt-1 text-[12px] text-faint">
          No line here: what it switches is in the circuit of its load or of the lamps, or it has none.
        </p>
      )}
      {cannot.length > 0 && (
        <p className="mt-1 text-[11px] text-faint">
          Not {cannot.map((option) => `${WORDS[option.scheme]} (${option.not_for})`).join("; not ")}.
        </p>
      )}
    </section>
  );
}

function WayRow({ option, onTake }: { option: WayOption; onTake: (() => void) | undefined }) {
  const pins = option.analogue
    ? [option.pins - option.analogue, `${option.analogue} A`].filter(Boolean).join(" + ")
    : option.pins;
  const said = [
    ...option.loses,
    ...(option.left.length
      ? [
          `${many(option.left.length, "line")} would stay by ${option.left.length > 1 ? "themselves" : "itself"}`,
        ]
      : []),
  ];
  const cell = "num py-0.5 pl-3 text-right whitespace-nowrap";
  return (
    <tr className={`border-t border-rule align-top ${option.now ? "bg-wash" : ""}`}>
      <td className="py-0.5 pr-2">
        <button
          type="button"
          className="flex gap-2 text-left enabled:hover:underline"
          disabled={option.now || !onTake}
          onClick={onTake}
          title={option.left.join("\n")}
        >
          <span
            aria-hidden="true"
            className={`mt-1 size-2.5 shrink-0 rounded-full border border-petrol ${option.now ? "bg-petrol" : ""}`}
          />
          <span>
            {WORDS[option.scheme]}
            {option.now && <span className="sr-only">, as it is</span>}
            {said.length > 0 && (
              <span className="block text-[11px]/[14px] text-judge">{said.join("; ")}</span>
            )}
          </span>
        </button>
      </td>
      <td className={cell}>{pins}</td>
      <td className={cell}>{option.wires}</td>
      <td className={cell}>{option.joints}</td>
      <td className={cell}>{option.small}</td>
      <td className={cell}>{money(option.money)}</td>
      <td className={cell}>{shown(option.minutes, 0)}</td>
      <td className={cell}>{option.reads == null ? "" : `${shown(option.reads, 1)} ms`}</td>
    </tr>
  );
}
