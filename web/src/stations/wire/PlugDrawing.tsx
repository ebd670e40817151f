/** A plug, seen as it is put in or from the side of the wires; each contact in the colour of its wire. */
import { useState } from "react";
import type { HarnessView } from "../../api/types";
import { useSession } from "../../app/session";
import { useTrade } from "../../app/trade";
import { many } from "../../ui/figures";
import { inkOf } from "./inks";

type Plug = HarnessView["plugs"][number];
const STEP = 17;

export function PlugDrawing({ plug }: { plug: Plug }) {
  const [wires, setWires] = useState(true);
  const [over, setOver] = useState<number | null>(null);
  const select = useSession((s) => s.select);
  const inks = useTrade()?.wire_inks;
  const on = new Map(plug.contacts.map((contact) => [contact.number, contact]));
  const longest = Math.max(...plug.rows.map((row) => row.length));
  const step = Math.min(22, Math.max(STEP, 330 / longest));
  const free = plug.size - on.size;
  return (
    <section aria-label={plug.title} className="border-t border-rule pt-2">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="font-semibold">
          {plug.title} <span className="font-normal text-faint">{plug.what}</span>
        </h3>
        <button type="button" className="shrink-0 text-petrol underline" onClick={() => setWires(!wires)}>
          {wires ? "from the wires" : "as it is put in"}
        </button>
      </div>
      <p className="text-faint">
        {many(on.size, "contact")} in use, {free} free; {plug.amps} A each at most
        {plug.key !== null && <>; contact {plug.key} is closed, so that no other plug of its kind goes in</>}
      </p>
      {plug.carries === "mains" && (
        <p className="mt-1 border-l-[3px] border-must pl-2.5 font-semibold">
          What is on it can kill. Cover it, keep its wires apart from all others, earth a metal plate, and
          have a licensed electrician wire it.
        </p>
      )}
      <svg
        role="img"
        aria-label={`${plug.title}, ${wires ? "from the side of the wires" : "as it is put in"}`}
        viewBox={`0 0 ${longest * step + 10} ${plug.rows.length * (step + 6) + 8}`}
        className="mt-1 w-full"
        style={{ maxWidth: longest * step + 10 }}
      >
        <rect
          x={1}
          y={1}
          width={longest * step + 8}
          height={plug.rows.length * (step + 6) + 6}
          rx={plug.kind === "dsub" ? 12 : 3}
          fill="var(--card)"
          stroke="var(--note)"
        />
        {plug.rows.map((row, k) =>
          row.map((number, n) => {
            const place = n + (longest - row.length) / 2;
            const column = wires ? longest - 1 - place : place;
            const contact = on.get(number);
            const [x, y] = [5 + (column + 0.5) * step, 5 + k * (step + 6) + step / 2];
            return (
              <g
                key={number}
                onMouseEnter={() => setOver(number)}
                onMouseLeave={() => setOver(null)}
                onClick={() => contact?.function && select([contact.function])}
                className={contact?.function ? "cursor-pointer" : ""}
              >
                <rect x={x - step / 2} y={y - step / 2} width={step} height={step + 6} fill="transparent" />
                <circle
                  cx={x}
                  cy={y - 1}
                  r={5.4}
                  fill={
                    number === plug.key
                      ? "var(--ink)"
                      : contact
                        ? inkOf(inks, contact.colour)
                        : "var(--sheet)"
                  }
                  stroke={over === number ? "var(--chosen)" : "var(--note)"}
                  strokeWidth={over === number ? 2.5 : 1}
                />
                {contact?.stripe && <circle cx={x} cy={y - 1} r={2.2} fill={inkOf(inks, contact.stripe)} />}
                <text x={x} y={y + 11} textAnchor="middle" fontSize={7.5} fill="var(--faint)">
                  {number}
                </text>
              </g>
            );
          }),
        )}
      </svg>
      <ul className="mt-1">
        {plug.contacts.map((contact) => (
          <li
            key={contact.number}
            className={`flex items-baseline gap-2 py-px ${over === contact.number ? "bg-wash" : ""}`}
            onMouseEnter={() => setOver(contact.number)}
            onMouseLeave={() => setOver(null)}
          >
            <b className="num w-5 shrink-0 text-right">{contact.number}</b>
            <span
              aria-hidden
              className="size-2.5 shrink-0 self-center rounded-full border border-note"
              style={{ background: inkOf(inks, contact.colour) }}
            />
            <button
              type="button"
              className="min-w-0 flex-1 truncate text-left hover:underline"
              title={`${contact.inside} to ${contact.outside}: ${contact.colour}${contact.stripe ? `-${contact.stripe}` : ""}, ${contact.area} mm²`}
              onClick={() => contact.function && select([contact.function])}
            >
              {contact.inside}
            </button>
            <span className="min-w-0 flex-1 truncate text-faint">{contact.outside}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
