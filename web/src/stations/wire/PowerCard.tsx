/** One branch of the tree: its figures in every state, and what a builder says of a supply or a board. */
import type { Command, PowerView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { ChoiceField, FigureField } from "../../ui/fields";
import { amps, type PowerNode } from "./powerTree";

interface Props {
  node: PowerNode;
  state: string;
  states: PowerView["states"];
}

export function PowerCard({ node, state, states }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const ident = node.id.replace(/^(supply|board)\./, "").replace(/\.fuse$/, "");
  const supply = design.workshop.supplies.find((one) => one.id === ident);
  const board = design.controllers.find((one) => one.id === ident);
  const most = Math.max(...states.map((s) => node.amps[s.state] ?? 0));
  const change = (command: Command) => void send([command]);
  return (
    <section aria-label={node.name}>
      <h3 className="font-semibold">{node.name}</h3>
      <ul className="mt-1">
        {states.map((one) => {
          const now = node.amps[one.state] ?? 0;
          return (
            <li key={one.state} className={`relative py-0.5 ${one.state === state ? "font-semibold" : ""}`}>
              <span className="flex justify-between gap-2">
                <span className="truncate">{one.name}</span>
                <span className="num shrink-0">{amps(now)}</span>
              </span>
              <span aria-hidden className="block h-[3px] bg-rule">
                <span
                  className="block h-full bg-petrol"
                  style={{ width: `${most > 0 ? (100 * now) / Math.max(most, node.most) : 0}%` }}
                />
              </span>
            </li>
          );
        })}
      </ul>
      {node.inrush > 1.05 * most && (
        <p className="mt-1 text-judge">
          {amps(node.inrush)} in the moment when it is switched on: cold bulbs take ten times theirs.
        </p>
      )}
      {node.heat > 0 && (
        <p className={`mt-1 ${node.heat > 1 ? "text-judge" : "text-faint"}`}>
          Turns <span className="num">{node.heat.toFixed(2)} W</span> into heat; over 1 W it wants a heat
          sink.
        </p>
      )}
      {supply && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <FigureField
            label="Gives"
            unit="A"
            value={supply.amps}
            least={0.01}
            most={1000}
            onCommit={(figure) => change({ do: "edit_supply", supply: supply.id, amps: figure })}
          />
          <FigureField
            label="Fuse in its plus"
            unit="A"
            hint="none"
            value={supply.fuse || null}
            least={0}
            most={1000}
            onEmpty={() => change({ do: "edit_supply", supply: supply.id, fuse: 0 })}
            onCommit={(figure) => change({ do: "edit_supply", supply: supply.id, fuse: figure })}
          />
          <ChoiceField
            label="Made from"
            value={supply.made_from ?? ""}
            options={[
              ["", "mains, battery"],
              ...design.workshop.supplies
                .filter(
                  (other) =>
                    other.id !== supply.id && other.volts > supply.volts && !below(design, other, supply.id),
                )
                .map((other) => [other.id, other.name] as const),
            ]}
            onCommit={(from) => change({ do: "edit_supply", supply: supply.id, made_from: from || null })}
          />
          {supply.made_from && (
            <ChoiceField
              label="Regulator"
              value={supply.linear ? "linear" : "switched"}
              options={[
                ["switched", "switched"],
                ["linear", "linear"],
              ]}
              onCommit={(kind) => change({ do: "edit_supply", supply: supply.id, linear: kind === "linear" })}
            />
          )}
          <Measured
            value={supply.measured}
            estimate={node.amps.all ?? 0}
            onCommit={(figure) => change({ do: "edit_supply", supply: supply.id, measured: figure })}
          />
        </div>
      )}
      {board && (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <Measured
            value={board.measured}
            estimate={node.amps.all ?? 0}
            onCommit={(figure) => change({ do: "edit_controller", controller: board.id, measured: figure })}
          />
        </div>
      )}
    </section>
  );
}

type Design = ReturnType<typeof useDesign>["design"];
type Supply = Design["workshop"]["supplies"][number];

/** Whether a supply is made, at last, from that one. */
function below(design: Design, supply: Supply, from: string): boolean {
  const next = design.workshop.supplies.find((one) => one.id === supply.made_from);
  return next !== undefined && (next.id === from || below(design, next, from));
}

interface MeasuredProps {
  value: number;
  estimate: number;
  onCommit: (value: number) => void;
}

/** What an ammeter says with everything on, beside what is reckoned. */
function Measured({ value, estimate, onCommit }: MeasuredProps) {
  const share = value > 0 && estimate > 0 ? value / estimate : null;
  return (
    <div>
      <FigureField
        label="Measured, all on"
        unit="A"
        hint="not yet"
        value={value || null}
        least={0}
        most={1000}
        onEmpty={() => onCommit(0)}
        onCommit={onCommit}
      />
      {share !== null && (
        <p className={`num mt-0.5 text-[11px] ${share > 1.2 || share < 0.5 ? "text-judge" : "text-ok"}`}>
          {Math.round(100 * share)}% of {amps(estimate)}
        </p>
      )}
    </div>
  );
}
