/** What the panel has to stand, and who comes near it. */
import type { Command, Design } from "../../api/types";

type Environment = Design["brief"]["environment"];

const WORDS = [
  ["sun", "Direct sun"],
  ["wet", "Rain, spray or damp"],
  ["heat", "Heat"],
  ["dark", "A dark room"],
  ["public", "Visitors or children"],
] as const satisfies readonly (readonly [keyof Environment, string])[];

interface Props {
  environment: Environment;
  send: (command: Command) => void;
}

export function Surroundings({ environment, send }: Props) {
  return (
    <fieldset className="mt-3">
      <legend className="text-[12px]">What it has to stand</legend>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1.5">
        {WORDS.map(([what, words]) => (
          <label key={what} className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={environment[what]}
              onChange={(event) => send({ do: "set_environment", [what]: event.target.checked })}
            />
            {words}
          </label>
        ))}
      </div>
    </fieldset>
  );
}
