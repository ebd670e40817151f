/** Over a part's sheet: for which functions it is chosen, the best one for them, and on to the next. */
import { choosePart, editFunction } from "../../api/commands";
import type { Candidate, Fn, Part } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { LAMP_COLOURS, takesColours } from "../../app/lampColours";
import { useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { Button } from "../../ui/Button";
import { ChoiceField } from "../../ui/fields";
import { partless } from "./FunctionList";
import { useCandidates } from "./useCandidates";

interface Props {
  part: Part;
  chosen: Fn[];
  onPick: (part: string) => void;
  /** Give functions the part that suits each best. */
  onBest: (functions: Fn[]) => void;
}

export function Chooser({ part, chosen, onPick, onBest }: Props) {
  const { id, design } = useDesign();
  const { send } = useChanges(id);
  const [first] = chosen;
  const candidates = useCandidates(chosen.length === 1 ? first : undefined);
  const best = candidates.data?.candidates.find((c) => c.misfits.length === 0);
  const bare = partless(design.functions);
  const around = bare.length ? bare : design.functions;
  const step = (by: number) => {
    const now = around.findIndex((f) => f.id === first?.id);
    const next = around[(now + by + around.length + (now < 0 && by < 0 ? 1 : 0)) % around.length];
    if (next) useSession.getState().select([next.id]);
  };
  /** Give the functions a part, and go on to the next that has none. */
  const choose = (ident: string, scheme?: Candidate["scheme"]) => {
    const commands = chosen.flatMap((f) => [
      ...(f.part === ident ? [] : [choosePart(f.id, ident)]),
      ...(scheme === undefined || f.scheme === scheme || (scheme === "direct" && f.scheme !== "ladder")
        ? []
        : [editFunction(f.id, { scheme: scheme === "ladder" ? "ladder" : "direct" })]),
    ]);
    if (commands.length) void send(commands);
    const left = bare.filter((f) => !chosen.includes(f));
    const at = bare.findIndex((f) => f.id === chosen.at(-1)?.id);
    const next = left.find((f) => bare.indexOf(f) > at) ?? left[0];
    if (next && chosen.some((f) => f.part === null)) useSession.getState().select([next.id]);
    else onPick(ident);
  };
  useCommands({
    "parts.next": () => step(1),
    "parts.previous": () => step(-1),
    "parts.best": best ? () => choose(best.part, best.scheme) : undefined,
    "parts.all": bare.length ? () => onBest(bare) : undefined,
    "parts.choose": chosen.length ? () => choose(part.id) : undefined,
  });
  const has = chosen.length > 0 && chosen.every((f) => f.part === part.id);
  const who = chosen.length === 1 ? first?.name : `${chosen.length} functions`;
  return (
    <section aria-label="Choose" className="mb-4 border-b border-rule pb-3">
      <div className="flex items-center gap-1.5">
        <Button
          look="quiet"
          aria-label="Previous function"
          title="Previous function (Page up)"
          onClick={() => step(-1)}
        >
          ◂
        </Button>
        <p className="min-w-0 flex-1 truncate text-center text-[13px]">
          {chosen.length ? (
            <>
              for <b>{who}</b>
            </>
          ) : (
            <span className="text-faint">No function selected</span>
          )}
        </p>
        <Button
          look="quiet"
          aria-label="Next function"
          title="Next function (Page down)"
          onClick={() => step(1)}
        >
          ▸
        </Button>
      </div>
      {bare.length > 0 && (
        <p className="mt-1 text-center text-[12px] min-[1241px]:hidden">
          <Button onClick={() => onBest(bare)}>Give all {bare.length} without a part their best</Button>
        </p>
      )}
      {best && best.part !== first?.part && (
        <p className="mt-2 flex items-center gap-2 rounded bg-wash p-2 text-[12px]">
          <span className="min-w-0 flex-1">
            Suits it best here: <b>{best.name}</b>
            {best.scheme === "ladder" && ", ladder"}
          </span>
          <Button look="solid" keys="B" onClick={() => choose(best.part, best.scheme)}>
            Choose
          </Button>
        </p>
      )}
      {chosen.length > 0 && !has && best?.part !== part.id && (
        <Button className="mt-2" keys="C" onClick={() => choose(part.id)}>
          Choose {part.name} for {who}
        </Button>
      )}
      {has && <p className="mt-2 font-semibold text-ok">✓ Chosen for {who}</p>}
      {has && takesColours(part) && first && (
        <div className="mt-2 max-w-56">
          <ChoiceField
            label="Colour of its lamp"
            value={first.colour ?? ""}
            options={[
              ["", `as the list says, or ${part.colour}`],
              ...LAMP_COLOURS.map((c) => [c, c] as const),
            ]}
            onCommit={(colour) =>
              void send(chosen.map((f) => editFunction(f.id, { colour: colour || null })))
            }
          />
        </div>
      )}
    </section>
  );
}
