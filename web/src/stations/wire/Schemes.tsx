/** What is read or driven together: each matrix, chip and ladder drawn with what hangs on it; how grounds are wired. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { editFunction } from "../../api/commands";
import type { NetworksView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { many } from "../../ui/figures";
import { money } from "../../ui/money";
import { FigureField } from "../../ui/fields";
import { NotThere } from "../../ui/NotThere";
import { Tabs } from "../../ui/Tabs";
import { ChainDrawing } from "./ChainDrawing";
import { ChipDrawing } from "./ChipDrawing";
import { LadderDrawing } from "./LadderDrawing";
import { MatrixDrawing } from "./MatrixDrawing";

type Network = NetworksView["networks"][number];
type Selector = NetworksView["selectors"][number];

const RETURNS = [
  ["bus", "one common, from part to part"],
  ["star", "each part by itself to the board"],
] as const;

export function Schemes() {
  const { id, revision } = useDesign();
  const found = useQuery({
    queryKey: ["networks", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/wire/networks", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
  if (!found.data) return <NotThere query={found} words="Laying out the schemes…" />;
  const { networks, selectors, returns } = found.data;
  return (
    <div className="h-full overflow-y-auto px-4 py-3 text-[12px]">
      {networks.length + selectors.length === 0 && (
        <p className="mb-5 max-w-[70ch]">
          Everything is on pins of its own. Select a control under Lines: the ways to read or drive it, its
          group or its whole module are compared there, and one press takes one up. What is then read together
          is drawn here.
        </p>
      )}
      {networks.map((network) => (
        <NetworkSection key={network.id} network={network} />
      ))}
      {selectors.map((selector) => (
        <SelectorSection key={selector.function} selector={selector} />
      ))}
      <Topologies ways={found.data.topologies} />
      <Grounds returns={returns} />
    </div>
  );
}

function NetworkSection({ network }: { network: Network }) {
  const without = network.lines.filter((line) => !line.at).length;
  return (
    <section aria-label={network.name} className="mb-5 border-b border-rule pb-4">
      <h3 className="font-semibold">{network.name}</h3>
      <p className="mt-0.5 text-faint">
        {network.lines.map((line, n) => (
          <span key={line.name}>
            {n > 0 && "; "}
            {line.name} <span className="num">{line.at || "no pin yet"}</span>
          </span>
        ))}
        {without > 0 && <span className="text-judge">. Assign the missing pins above.</span>}
      </p>
      <div className="mt-2 flex flex-wrap gap-x-8 gap-y-4">
        {network.rows.length > 0 && <MatrixDrawing network={network} />}
        {network.chain.length > 0 && <ChainDrawing chain={network.chain} />}
        {network.chips.map((chip) => (
          <ChipDrawing key={chip.mark} chip={chip} />
        ))}
      </div>
      {network.chips.length > 0 && (
        <p className="mt-1 text-[11px] text-faint">
          From above, the notch at the top; pin numbers from the data sheet, from memory: compare yours. 100
          nF beside each chip.
        </p>
      )}
    </section>
  );
}

function SelectorSection({ selector }: { selector: Selector }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const { function: fn, name, words, ladder, bits, numbers } = selector;
  return (
    <section aria-label={`${name}, read as one`} className="mb-5 border-b border-rule pb-4">
      <h3 className="font-semibold">
        <button type="button" className="hover:underline" onClick={() => useSession.getState().select([fn])}>
          {name}
        </button>
        {ladder
          ? `, ${many(words.length - 1, "equal resistor")}`
          : bits > 0
            ? `, in binary on ${many(bits, "line")}`
            : ", an input coder on its tags"}
      </h3>
      {ladder ? (
        <div className="mt-1 flex flex-wrap items-start gap-6">
          <LadderDrawing words={words} ladder={ladder} />
          <div className="w-44">
            <FigureField
              label="Each resistor"
              unit="Ω"
              value={selector.step}
              least={10}
              most={1_000_000}
              onCommit={(step) => void send([editFunction(fn, { step })])}
            />
            <label className="mt-2 flex items-center gap-2">
              <input
                type="checkbox"
                checked={selector.steady}
                onChange={() => void send([editFunction(fn, { steady: !selector.steady })])}
              />
              100 nF at the pin
            </label>
            <dl className="mt-2 grid grid-cols-[1fr_auto] gap-x-3 text-[11px]">
              <dt className="text-faint">the pin sees at most</dt>
              <dd className="num text-right">{(ladder.source / 1000).toFixed(2)} kΩ</dd>
              <dt className="text-faint">settles in</dt>
              <dd className="num text-right">{(ladder.settles * 1000).toFixed(1)} ms</dd>
              <dt className="text-faint">resistors move a tap</dt>
              <dd className="num text-right">
                {(100 * ladder.off).toFixed(1)} of {(100 * ladder.half).toFixed(1)} %
              </dd>
            </dl>
          </div>
        </div>
      ) : (
        <table className="mt-1 border-collapse">
          <tbody>
            {words.map((word, n) => (
              <tr key={n} className="border-t border-rule">
                <td className="py-0.5 pr-6">{word}</td>
                {bits > 0 ? (
                  <td className="num py-0.5 tracking-widest">{n.toString(2).padStart(bits, "0")}</td>
                ) : (
                  <td className="num py-0.5">
                    {numbers[n] === undefined ? "no port yet" : `number ${numbers[n]} to the computer`}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

/** Contacts of plugs, each kind with how many of it. */
const plugWords = (plugs: readonly number[]) =>
  [...new Set(plugs)]
    .map((size) => `${plugs.filter((other) => other === size).length} × ${size}`)
    .join(", ") || "none";

function Topologies({ ways }: { ways: NetworksView["topologies"] }) {
  const { brief } = useDesign().design;
  if (ways.length === 0) return null;
  const cell = "num py-1 pl-4 text-right whitespace-nowrap";
  return (
    <section aria-label="One controller, or several" className="mb-5 border-b border-rule pb-4">
      <h3 className="font-semibold">One controller, or several</h3>
      <table className="mt-1 border-collapse text-left">
        <thead>
          <tr className="text-[11px] text-faint">
            <th className="py-0.5 font-normal">how lines are spread</th>
            <th className="py-0.5 pl-4 font-normal">boards</th>
            {[brief.currency, "USB ports", "wires across joints", "D-sub plugs"].map((head) => (
              <th key={head} className="py-0.5 pl-4 text-right font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ways.map((way) => (
            <tr
              key={way.name}
              className={`border-t border-rule align-top ${way.name === "as it is" ? "bg-wash" : ""}`}
            >
              <td className="py-1">{way.name}</td>
              {way.not_for ? (
                <td colSpan={5} className="py-1 pl-4 text-judge">
                  {way.not_for}
                </td>
              ) : (
                <>
                  <td className="py-1 pl-4">
                    {way.boards.map((board) => `${board.many} × ${board.name}`).join("; ")}
                  </td>
                  <td className={cell}>{money(way.money)}</td>
                  <td className={cell}>{way.ports}</td>
                  <td className={cell}>{way.crossing}</td>
                  <td className={cell}>{plugWords(way.plugs)}</td>
                </>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-1 max-w-[80ch] text-[11px] text-faint">
        Each board sits at the module that most of its lines come from; from every other module its lines
        cross a joint, with its supply and ground. Prices are from memory. Boards are added above; pins are
        then assigned module by module.
      </p>
    </section>
  );
}

function Grounds({ returns }: { returns: NetworksView["returns"] }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  return (
    <section aria-label="Grounds">
      <h3 className="font-semibold">Grounds</h3>
      <p className="max-w-[70ch] text-faint">
        One bare common along a row of parts saves a wire for each. Parts that draw much, far apart, want each
        a ground of their own: what one drops then lifts no other.
      </p>
      {returns.map((module) => (
        <div key={module.module} className="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
          <span className="w-40 truncate">{module.name}</span>
          <Tabs
            label={`Grounds of ${module.name}`}
            tabs={RETURNS}
            now={module.returns}
            onChange={(to) => void send([{ do: "edit_module", module: module.module, returns: to }])}
            className="h-7! px-0!"
          />
          <span className="num text-faint">{many(module.wires, "wire")}</span>
        </div>
      ))}
    </section>
  );
}
