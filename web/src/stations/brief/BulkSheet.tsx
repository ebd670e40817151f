/** Several functions at once: what is set here is set for all of them. */
import { editFunction, type FnChanges, removeFunction } from "../../api/commands";
import type { Fn } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { ChoiceField, TextField } from "../../ui/fields";
import { HANDS, MOMENTS, STATES, RISKS } from "./wishes";

/** The value all of them share, or null. */
function shared<T>(chosen: Fn[], of: (fn: Fn) => T): T | null {
  const [first] = chosen;
  return first && chosen.every((f) => of(f) === of(first)) ? of(first) : null;
}

type Option<T extends string> = readonly (readonly [T, string])[];
const withMixed = <T extends string>(options: Option<T>, value: T | null): Option<T | "mixed"> =>
  value === null ? [["mixed", "different"], ...options] : options;

export function BulkSheet({ chosen }: { chosen: Fn[] }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const edit = (changes: FnChanges) => void send(chosen.map((f) => editFunction(f.id, changes)));
  const risk = shared(chosen, (f) => f.risk);
  const state = shared(chosen, (f) => f.state);
  const hand = shared(chosen, (f) => f.hand);
  const moment = shared(chosen, (f) => f.moment);
  return (
    <section aria-label="Selected functions" className="mb-5 rounded border border-rule bg-sheet p-3.5">
      <h2 className="mb-2 text-[13px]">{chosen.length} functions together</h2>
      <div className="grid grid-cols-2 gap-2.5">
        <TextField
          label="Group"
          value={shared(chosen, (f) => f.group) ?? ""}
          hint="different"
          onCommit={(group) => edit({ group })}
        />
        <TextField
          label="Control or light wanted"
          value={shared(chosen, (f) => f.want) ?? ""}
          hint="different"
          onCommit={(want) => edit({ want })}
        />
        <ChoiceField
          label="Risk"
          value={risk ?? "mixed"}
          options={withMixed(RISKS, risk)}
          onCommit={(value) => value !== "mixed" && edit({ risk: value })}
        />
        <ChoiceField
          label="State"
          value={state ?? "mixed"}
          options={withMixed(STATES, state)}
          onCommit={(value) => value !== "mixed" && edit({ state: value })}
        />
        <ChoiceField
          label="Hand"
          value={hand ?? "mixed"}
          options={withMixed(HANDS, hand)}
          onCommit={(value) => value !== "mixed" && edit({ hand: value })}
        />
        <ChoiceField
          label="When it is used"
          value={moment ?? "mixed"}
          options={withMixed(MOMENTS, moment)}
          onCommit={(value) => value !== "mixed" && edit({ moment: value })}
        />
        <TextField
          label="On bus"
          value={shared(chosen, (f) => f.switches.bus) ?? ""}
          hint="different"
          onCommit={(bus) => void send(chosen.map((f) => editFunction(f.id, { bus })))}
        />
      </div>
      <Button
        look="quiet"
        className="mt-3"
        onClick={() => {
          useSession.getState().select([]);
          void send(chosen.map((f) => removeFunction(f.id)));
        }}
      >
        Remove them
      </Button>
    </section>
  );
}
