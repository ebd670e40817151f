/** Supplies and controllers on hand. */
import { AddController } from "../../app/AddController";
import type { Command, DesignView } from "../../api/types";
import { useTrade } from "../../app/trade";
import { Button } from "../../ui/Button";
import { FigureField, TextField } from "../../ui/fields";
import { TakeAway } from "../../ui/TakeAway";

interface Props {
  view: DesignView;
  send: (command: Command) => void;
}

const SUPPLY_COLUMNS = "grid grid-cols-[minmax(0,3fr)_repeat(3,minmax(0,1fr))_24px] gap-1.5";

export function Supplies({ view, send }: Props) {
  const { supplies } = view.design.workshop;
  const boards = view.design.controllers;
  const trade = useTrade();
  return (
    <section aria-label="Supplies and boards" className="mt-5">
      <p className="flex flex-wrap items-center justify-between gap-1.5">
        <b className="text-[12px]">Supplies and boards on hand</b>
        <span className="flex gap-1.5">
          <Button
            disabled={!trade}
            onClick={() => {
              if (trade) send({ do: "add_supply", ...trade.supply });
            }}
          >
            Add a supply
          </Button>
          <AddController design={view.id} />
        </span>
      </p>
      {supplies.length > 0 && (
        <p aria-hidden className={`mt-2 ${SUPPLY_COLUMNS} text-[11px] text-faint`}>
          <span>Supply</span>
          <span className="text-right">volts</span>
          <span className="text-right">amps</span>
          <span className="text-right">on hand</span>
        </p>
      )}
      {supplies.map((supply) => (
        <div key={supply.id} className={`mt-1.5 ${SUPPLY_COLUMNS}`}>
          <TextField
            bare
            label="Name of the supply"
            value={supply.name}
            needed
            onCommit={(name) => send({ do: "edit_supply", supply: supply.id, name })}
          />
          {(["volts", "amps", "count"] as const).map((key) => (
            <FigureField
              bare
              key={key}
              whole={key === "count"}
              label={`${supply.name}, ${key}`}
              value={supply[key]}
              least={key === "count" ? 0 : 0.01}
              most={1000}
              onCommit={(figure) => send({ do: "edit_supply", supply: supply.id, [key]: figure })}
            />
          ))}
          <TakeAway
            what={supply.name}
            onTake={() => send({ do: "remove_from_workshop", kind: "supplies", id: supply.id })}
          />
        </div>
      ))}
      <ul className="mt-1.5 flex flex-wrap gap-x-4 gap-y-1 text-[12px]">
        {boards.map((b) => (
          <li key={b.id} className="flex items-center gap-1">
            {b.name}
            <TakeAway what={b.name} onTake={() => send({ do: "remove_controller", controller: b.id })} />
          </li>
        ))}
      </ul>
    </section>
  );
}
