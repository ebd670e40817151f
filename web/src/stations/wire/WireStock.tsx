/** What is cut, by colour and thickness; wire on hand and what is left of it; the rules that give wires their colours. */
import type { Command, HarnessView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { many } from "../../ui/figures";
import { ChoiceField, FigureField, LengthField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";
import { inkOf } from "./inks";

type Rule = HarnessView["rules"][number];
type Colour = NonNullable<Rule["colour"]>;
const COLOURS: readonly Colour[] = [
  "black",
  "brown",
  "red",
  "orange",
  "yellow",
  "green",
  "blue",
  "violet",
  "grey",
  "white",
  "pink",
  "turquoise",
  "green-yellow",
];
const CHOICES = COLOURS.map((colour) => [colour, colour] as const);

export function WireStock({ harness }: { harness: HarnessView }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const change = (command: Command) => void send([command]);
  return (
    <div className="grid min-h-0 flex-1 grid-cols-3 gap-x-8 overflow-y-auto bg-sheet px-4 py-3 text-[12px] max-[1200px]:grid-cols-2 max-[800px]:grid-cols-1">
      <Cut harness={harness} />
      <OnHand harness={harness} change={change} />
      <Rules harness={harness} change={change} />
    </div>
  );
}

interface Props {
  harness: HarnessView;
  change: (command: Command) => void;
}

function Cut({ harness }: { harness: HarnessView }) {
  const inks = useTrade()?.wire_inks;
  const most = Math.max(...harness.wire.map((w) => w.metres), 0.1);
  return (
    <section aria-label="What is cut" className="mb-4">
      <h3 className="font-semibold">What is cut</h3>
      <p className="text-faint">
        With slack and bared ends; to buy: a tenth more. {many(harness.ends.solder ?? 0, "end")} soldered,{" "}
        {harness.ends.screw ?? 0} under screws, {harness.ends.tab ?? 0} on tabs, {harness.ends.header ?? 0} on
        headers.
      </p>
      <table className="mt-1 w-full">
        <thead>
          <tr className="text-[11px] text-faint">
            <th className="text-left font-normal">Wire</th>
            <th className="text-right font-normal">mm²</th>
            <th className="text-right font-normal">AWG</th>
            <th className="text-right font-normal">pieces</th>
            <th className="text-right font-normal">m</th>
            <th className="text-right font-normal">to buy</th>
          </tr>
        </thead>
        <tbody>
          {harness.wire.map((w) => (
            <tr key={`${w.colour} ${w.area}`} className="border-t border-rule">
              <td className="py-0.5">
                <span className="flex items-center gap-2">
                  <span
                    aria-hidden
                    className="h-[5px] rounded-full outline-1 outline-note"
                    style={{
                      background: inkOf(inks, w.colour.split("-")[0] ?? ""),
                      width: `${8 + (46 * w.metres) / most}px`,
                    }}
                  />
                  {w.colour}
                </span>
              </td>
              <td className="num text-right">{w.area}</td>
              <td className="num text-right">{w.awg}</td>
              <td className="num text-right">{w.pieces}</td>
              <td className="num text-right">{w.metres.toFixed(1)}</td>
              <td className="num text-right">{w.to_buy > 0 ? w.to_buy.toFixed(1) : "–"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

const STOCK = "grid grid-cols-[minmax(0,1fr)_3.7rem_3.3rem_2.7rem_24px] gap-1.5";

function OnHand({ harness, change }: Props) {
  const { design } = useDesign();
  const inks = useTrade()?.wire_inks;
  const { wires } = design.workshop;
  return (
    <section aria-label="Wire on hand" className="mb-4">
      <p className="flex items-center justify-between">
        <b>Wire on hand</b>
        <Button onClick={() => change({ do: "add_wire", colour: "black", area: 0.22, metres: 10, count: 1 })}>
          Add wire
        </Button>
      </p>
      {wires.length === 0 ? (
        <p className="mt-1 text-faint">
          None is listed: all of it is to be bought. Add the spools and ends in your drawer; the longest wires
          are cut first, each from the shortest piece that it fits on.
        </p>
      ) : (
        <p aria-hidden className={`mt-1 ${STOCK} text-[11px] text-faint`}>
          <span>Colour</span>
          <span className="text-right">mm²</span>
          <span className="text-right">m each</span>
          <span className="text-right">pieces</span>
        </p>
      )}
      {wires.map((wire) => {
        const rests = harness.rests.filter((rest) => rest.stock === wire.id);
        return (
          <div key={wire.id} className="mt-1.5">
            <div className={STOCK}>
              <ChoiceField
                bare
                label="Colour of the wire"
                value={wire.colour}
                options={CHOICES}
                onCommit={(colour) => change({ do: "edit_wire", wire: wire.id, colour })}
              />
              {(["area", "metres", "count"] as const).map((key) => (
                <FigureField
                  bare
                  key={key}
                  whole={key === "count"}
                  label={`${wire.colour} wire, ${key === "area" ? "mm²" : key === "metres" ? "metres of a piece" : "pieces"}`}
                  value={wire[key]}
                  least={key === "count" ? 0 : key === "area" ? 0.05 : 0.01}
                  most={key === "area" ? 35 : key === "count" ? 1000 : 10_000}
                  onCommit={(figure) => change({ do: "edit_wire", wire: wire.id, [key]: figure })}
                />
              ))}
              <TakeAway
                what={`${wire.colour} wire`}
                onTake={() => change({ do: "remove_from_workshop", kind: "wires", id: wire.id })}
              />
            </div>
            {rests.slice(0, 6).map((rest) => (
              <p key={rest.piece} className="mt-0.5 flex items-center gap-2 text-[11px] text-faint">
                <span aria-hidden className="block h-[5px] w-28 bg-rule">
                  <span
                    className="block h-full"
                    style={{
                      width: `${(100 * (rest.whole - rest.left)) / rest.whole}%`,
                      background: inkOf(inks, wire.colour),
                    }}
                  />
                </span>
                <span className="num">{(rest.left / 1000).toFixed(2)} m left</span>
              </p>
            ))}
            {rests.length > 6 && (
              <p className="mt-0.5 text-[11px] text-faint">and {many(rests.length - 6, "piece")} more</p>
            )}
          </div>
        );
      })}
    </section>
  );
}

const NETS: Record<Rule["net"], string> = {
  ground: "Ground",
  "3.3 V": "3.3 V",
  "5 V": "5 V",
  "12 V": "12 V",
  "24 V": "24 V",
  "other supplies": "Other supplies",
  earth: "Protective earth",
  line: "Line (50 V and more)",
  neutral: "Neutral",
  loads: "To loads",
  lamps: "To lamps and drivers",
  contacts: "From contacts",
  analogue: "Voltages to measure",
  buses: "Buses",
};

function Rules({ harness, change }: Props) {
  const { design } = useDesign();
  const inks = useTrade()?.wire_inks;
  const { colours, slack, strip, area, power_area, away, ties, spare } = design.harness;
  const rule = (net: Rule["net"], colour: Colour | "") => {
    const others = colours.filter((one) => one.net !== net);
    change({ do: "set_harness", colours: colour ? [...others, { net, colour }] : others });
  };
  return (
    <section aria-label="Rules" className="mb-4">
      <h3 className="font-semibold">What every wire is given</h3>
      <div className="mt-1 grid grid-cols-2 gap-2">
        <LengthField
          label="Slack at each end"
          value={slack}
          onCommit={(mm) => change({ do: "set_harness", slack: mm })}
        />
        <LengthField
          label="Bared at each end"
          value={strip}
          onCommit={(mm) => change({ do: "set_harness", strip: mm })}
        />
        <FigureField
          label="Thinnest wire"
          unit="mm²"
          value={area}
          least={0.05}
          most={35}
          onCommit={(figure) => change({ do: "set_harness", area: figure })}
        />
        <FigureField
          label="Supplies and loads"
          unit="mm²"
          hint="as it must be"
          value={power_area ?? null}
          least={0.05}
          most={35}
          onEmpty={() => change({ do: "set_harness", power_area: null })}
          onCommit={(figure) => change({ do: "set_harness", power_area: figure })}
        />
        <LengthField
          label="To what stands nowhere"
          value={away}
          onCommit={(mm) => change({ do: "set_harness", away: mm })}
        />
        <LengthField
          label="From tie to tie"
          value={ties}
          least={20}
          onCommit={(mm) => change({ do: "set_harness", ties: mm })}
        />
        <FigureField
          label="Contacts kept free"
          unit="%"
          value={spare}
          least={0}
          most={100}
          onCommit={(figure) => change({ do: "set_harness", spare: figure })}
        />
      </div>
      <h3 className="mt-3 font-semibold">Colours</h3>
      <ul className="mt-1">
        {harness.rules.map((one) => (
          <li key={one.net} className="grid grid-cols-[14px_minmax(0,1fr)_9rem] items-center gap-2 py-0.5">
            <span
              aria-hidden
              className="size-3 rounded-full border border-note"
              style={{ background: one.colour ? inkOf(inks, one.colour) : "transparent" }}
            />
            <span className="truncate">{NETS[one.net]}</span>
            <ChoiceField
              bare
              label={`Colour of wires: ${NETS[one.net]}`}
              value={one.own ? (one.colour ?? "") : ""}
              options={[["", one.own || !one.colour ? "as usual" : `usual: ${one.colour}`], ...CHOICES]}
              onCommit={(colour) => rule(one.net, colour)}
            />
          </li>
        ))}
      </ul>
      <p className="mt-1 text-faint">
        Where nothing is set, signals follow the figures of the resistors' colour code, without the colours
        that mean something here.
      </p>
    </section>
  );
}
