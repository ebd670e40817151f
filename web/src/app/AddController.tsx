/** Adds a controller of a kind: named by its chip and pins. */
import { useChanges } from "./design";
import { useTrade } from "./trade";

export function AddController({ design }: { design: string }) {
  const { send } = useChanges(design);
  const kinds = useTrade()?.controllers ?? [];
  return (
    <select
      aria-label="Add a controller"
      className="h-8 rounded border border-faint bg-sheet px-2 text-[12px]"
      value=""
      disabled={kinds.length === 0}
      onChange={(event) => {
        const kind = kinds.find((c) => c.board === event.target.value);
        if (kind) void send([{ do: "add_controller", board: kind.board, name: "" }]);
      }}
    >
      <option value="">Add a controller…</option>
      {kinds.map(({ board, name }) => (
        <option key={board} value={board}>
          {name}
        </option>
      ))}
    </select>
  );
}
