/** Money and hours: the running estimate against a bought panel, and the log that corrects it. */
import { type BriefChanges, setBrief } from "../../api/commands";
import type { BriefView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { FigureField, TextField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { money } from "../../ui/money";
import { NotThere } from "../../ui/NotThere";
import { useBrief } from "./useBrief";
import { HoursTable, Log, LogForm } from "./Hours";

export function Budget() {
  const view = useDesign();
  const { send } = useChanges(view.id);
  const follows = useBrief();
  const { brief } = view.design;
  const set = (changes: BriefChanges) => void send([setBrief(changes)]);
  if (!follows.data) return <NotThere query={follows} words="Adding it up…" className="" />;
  const { estimate } = follows.data;
  return (
    <section aria-label="Money and hours">
      <Money estimate={estimate} currency={brief.currency} />
      <div className="mt-3 grid grid-cols-2 gap-2.5">
        <FigureField
          label="Price of a bought one"
          unit={brief.currency}
          value={brief.bought_price == null ? null : brief.bought_price / 100}
          most={1e7}
          onEmpty={() => set({ bought_price: null })}
          onCommit={(price) => set({ bought_price: Math.round(price * 100) })}
        />
        <TextField
          label="Currency, three letters"
          value={brief.currency}
          needed
          onCommit={(currency) => set({ currency: currency.toUpperCase() })}
        />
      </div>
      <p className="mt-2">
        <a className="text-petrol underline" href={`/api/designs/${view.id}/parts/shopping.csv`} download>
          Shopping list as CSV
        </a>
      </p>
      <HoursTable estimate={estimate} />
      <LogForm controls={estimate.controls} />
      <Log />
    </section>
  );
}

type Estimate = BriefView["estimate"];

function Money({ estimate, currency }: { estimate: Estimate; currency: string }) {
  const rows: [string, string][] = [
    ["Parts to buy, new", money(estimate.parts, currency)],
    [
      "the same, used where there are any",
      `${money(estimate.parts_used_low)} to ${money(estimate.parts_used_high, currency)}`,
    ],
    ["Sheets to buy", money(estimate.sheets, currency)],
    ["Total", money(estimate.money, currency)],
  ];
  const own = estimate.saved;
  return (
    <>
      <h3 className="text-[12px]">Money</h3>
      <dl className="mt-1">
        {rows.map(([what, sum]) => (
          <div key={what} className="flex justify-between border-t border-rule py-1">
            <dt className={what === "Total" ? "font-semibold" : ""}>{what}</dt>
            <dd className="num">{sum}</dd>
          </div>
        ))}
      </dl>
      {own != null && (
        <p className="mt-1 text-[12px]">
          {own >= 0 ? "Saves " : "Costs "}
          <b className="num">{money(Math.abs(own), currency)}</b>{" "}
          {own >= 0 ? "against a bought one" : "more than a bought one"}
          {estimate.saved_an_hour != null && (
            <>
              , <span className="num">{money(estimate.saved_an_hour, currency)}</span> for each of{" "}
              <span className="num">{shown(estimate.hours, 0)}</span> hours
            </>
          )}
          .
        </p>
      )}
    </>
  );
}
