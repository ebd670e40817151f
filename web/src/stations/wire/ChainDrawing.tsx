/** Read-outs, or addressable lamps, in the order of their chain, from the board on; digits that stay dark crossed out. */
import type { NetworksView } from "../../api/types";
import { useSession } from "../../app/session";

type Chain = NetworksView["networks"][number]["chain"];

export function ChainDrawing({ chain }: { chain: Chain }) {
  const { selection, select } = useSession();
  return (
    <ol className="flex flex-wrap items-center gap-y-3">
      {chain.map((link, n) => (
        <li key={link.function} className="flex items-center">
          <span aria-hidden="true" className="h-0.5 w-8 bg-ink" />
          <button
            type="button"
            className={`rounded border bg-sheet px-2 py-1 text-left ${selection.includes(link.function) ? "border-petrol" : "border-rule"}`}
            onClick={() => select([link.function])}
          >
            <span className="block text-[11px]">{link.name}</span>
            <span aria-hidden="true" className="num flex gap-0.5">
              {Array.from({ length: link.digits }, (_, digit) => (
                <span
                  key={digit}
                  className={`w-4 rounded-sm border border-rule text-center ${digit < link.dark ? "text-faint" : "bg-wash"}`}
                >
                  {digit < link.dark ? "×" : "8"}
                </span>
              ))}
            </span>
            <span className="block text-[11px] text-faint">
              {link.digits === 0 ? (
                `lamp ${n + 1} of the chain`
              ) : (
                <>
                  {link.digits - link.dark} of {link.digits} digits shown
                  {link.dark > 0 && ", the others told to stay dark"}
                </>
              )}
            </span>
          </button>
        </li>
      ))}
    </ol>
  );
}
