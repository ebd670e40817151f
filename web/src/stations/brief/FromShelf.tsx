/** What other designs have set: for this one with one click, or off the shelf for good. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import type { Command, DesignView, Shelf } from "../../api/types";
import { Button } from "../../ui/Button";
import { TakeAway } from "../../ui/TakeAway";

type Kind = "machine" | "stock" | "supply" | "part";

interface Offer {
  kind: Kind;
  id: string;
  words: string;
  command: Command | null;
}

function offers(shelf: Shelf, { workshop, parts }: DesignView["design"]): Offer[] {
  const absent = (there: readonly { id: string }[], id: string) => !there.some((own) => own.id === id);
  return [
    ...shelf.machines
      .filter((m) => absent(workshop.machines, m.id))
      .map((m): Offer => ({
        kind: "machine",
        id: m.id,
        words: m.name,
        command: { do: "add_machine", ...m },
      })),
    ...shelf.stock
      .filter((s) => absent(workshop.stock, s.id))
      .map((s): Offer => {
        const words = `${s.count} × ${s.thickness} mm ${s.material}`;
        return { kind: "stock", id: s.id, words, command: { do: "add_stock", ...s } };
      }),
    ...shelf.supplies
      .filter((s) => absent(workshop.supplies, s.id))
      .map((s): Offer => ({ kind: "supply", id: s.id, words: s.name, command: { do: "add_supply", ...s } })),
    ...shelf.parts
      .filter((p) => absent(parts, p.id))
      .map((p): Offer => ({ kind: "part", id: p.id, words: p.name, command: { do: "adopt_part", part: p } })),
    ...shelf.damaged.map((d): Offer => {
      const words = `${d.id} cannot be read: ${d.reason}`;
      return { kind: d.kind as Kind, id: d.id, words, command: null };
    }),
  ];
}

export function FromShelf({ view, send }: { view: DesignView; send: (command: Command) => void }) {
  const client = useQueryClient();
  const key = ["shelf", view.revision];
  const shelf = useQuery({
    queryKey: key,
    queryFn: () => answered(api.GET("/api/shelf")),
    placeholderData: (before) => before,
  });
  const found = shelf.data ? offers(shelf.data, view.design) : [];
  if (found.length === 0) return null;
  const remove = async ({ kind, id }: Offer) => {
    const params = { path: { kind, ident: id } };
    client.setQueryData(key, await answered(api.DELETE("/api/shelf/{kind}/{ident}", { params })));
  };
  return (
    <section aria-label="From your other designs" className="mt-5">
      <h3 className="text-[12px]">From your other designs</h3>
      <p className="mt-1 text-[11px] text-faint">
        Add it to this design, or remove it from the shelf for all.
      </p>
      <ul className="mt-1 flex flex-wrap gap-x-3 gap-y-1.5">
        {found.map((offer) => (
          <li key={`${offer.kind} ${offer.id}`} className="flex items-center gap-0.5">
            {offer.command ? (
              <Button onClick={() => offer.command && send(offer.command)}>+ {offer.words}</Button>
            ) : (
              <span className="text-[12px] text-must">{offer.words}</span>
            )}
            <TakeAway what={`${offer.words} from the shelf`} onTake={() => void remove(offer)} />
          </li>
        ))}
      </ul>
    </section>
  );
}
