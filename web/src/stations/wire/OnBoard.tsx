/** The program that is on a board: asked at its port, or pasted; whether it still does what the design says. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { answered, api } from "../../api/client";
import type { OnBoardView } from "../../api/types";
import { useDesign } from "../../app/design";
import { Button } from "../../ui/Button";
import { Mark, type MarkKind } from "../../ui/Mark";
import { ChoiceField, TextField } from "../../ui/fields";

const MARKS: Record<OnBoardView["state"], MarkKind> = {
  same: "settled",
  differs: "judge",
  other: "must",
  unknown: "judge",
};
const CHANGES: Record<OnBoardView["differences"][number]["change"], string> = {
  new: "is new",
  gone: "is gone",
  renamed: "has another name",
  moved: "moved",
  changed: "changed",
};

/** `onTold` gets what the answer means whenever that is known anew. */
export function OnBoard({ onTold }: { onTold: (board: string) => void }) {
  const { id, revision } = useDesign();
  const client = useQueryClient();
  const [said, setSaid] = useState("");
  const [asking, setAsking] = useState(false);
  const [wrong, setWrong] = useState("");
  const ports = useQuery({
    queryKey: ["ports"],
    queryFn: () => answered(api.GET("/api/ports")),
    staleTime: 0,
  });
  const [port, setPort] = useState("");
  const judging = (text: string) => ({
    queryKey: ["on-board", id, revision, text],
    retry: false,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/wire/on-board", {
          params: { path: { design_id: id }, query: { said: text } },
        }),
      ),
  });
  const judged = useQuery({ ...judging(said), enabled: said !== "", placeholderData: (before) => before });
  const take = async (text: string) => {
    setWrong("");
    setSaid("");
    if (!text) return;
    onTold((await client.fetchQuery(judging(text))).board);
    setSaid(text);
  };
  const there = ports.data ?? [];
  const chosen = there.some((one) => one.port === port) ? port : (there[0]?.port ?? "");
  const ask = async () => {
    setAsking(true);
    setWrong("");
    try {
      const heard = await answered(api.POST("/api/ports/greeting", { body: { port: chosen } }));
      await take(heard.said);
    } catch (error) {
      setWrong(error instanceof Error ? error.message : "That did not work");
    }
    setAsking(false);
  };
  return (
    <section aria-label="On the board" className="mt-3 border-t border-rule pt-2">
      <h3 className="font-semibold">On the board</h3>
      {there.length > 0 ? (
        <>
          <div className="mt-1 flex items-end gap-1.5">
            <div className="min-w-0 flex-1">
              <ChoiceField
                label="Port of the machine that runs this"
                value={chosen}
                options={there.map((one) => [one.port, `${one.port} ${one.words}`.trim()] as const)}
                onCommit={setPort}
              />
            </div>
            <Button disabled={asking} onClick={() => void ask()}>
              {asking ? "Asking…" : "Ask it"}
            </Button>
          </div>
          <p className="mt-1 text-faint">
            Most boards start anew when they are asked: loads go off, lamps to their state of power-up.{" "}
            <button type="button" className="text-petrol underline" onClick={() => void ports.refetch()}>
              Look for ports again
            </button>
          </p>
        </>
      ) : (
        <p className="mt-1 flex items-center gap-1.5 text-faint">
          <span className="flex-1">No serial port is plugged in at the machine that runs this.</span>
          <Button look="quiet" onClick={() => void ports.refetch()}>
            Look again
          </Button>
        </p>
      )}
      {wrong && (
        <p role="alert" className="mt-1 text-must">
          {wrong}
        </p>
      )}
      <div className="mt-1.5">
        <TextField
          label="Or what it answers to hello"
          value={said}
          longest={400}
          hint="board 1 A of … revision 7 lines 3FA2 edition 1"
          onCommit={take}
        />
      </div>
      {said && judged.data && <Verdict of={judged.data} />}
    </section>
  );
}

function Verdict({ of }: { of: OnBoardView }) {
  return (
    <div role="status" className="mt-1.5">
      <p className="flex items-baseline gap-1.5">
        <Mark kind={MARKS[of.state]} className="shrink-0" />
        <span>{of.words}</span>
      </p>
      {of.differences.length > 0 && (
        <ul className="mt-1 border-l-[3px] border-judge pl-2.5">
          {of.differences.map((one) => (
            <li key={one.name} className="py-0.5">
              <b className="num">{one.name}</b> {CHANGES[one.change]}
              <span className="block text-faint">
                {one.was}
                {one.was && one.now && " → "}
                {one.now}
              </span>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
