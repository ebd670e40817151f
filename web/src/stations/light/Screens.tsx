/** Read-outs and screens: the film over each, how much it lets through, and from how far aside it is looked at. */
import { editFunction } from "../../api/commands";
import type { LampsView } from "../../api/types";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import { ChoiceField } from "../../ui/fields";
import { shown } from "../../ui/figures";
import { LitButton } from "./LitButton";

type Screen = LampsView["screens"][number];

const FILMS = [
  ["", "nothing over it"],
  ["clear", "clear cover"],
  ["grey", "grey film"],
  ["red", "red film"],
  ["amber", "amber film"],
  ["green", "green film"],
  ["blue", "blue film"],
] as const;

export function Screens({ screens }: { screens: readonly Screen[] }) {
  return (
    <section aria-label="Read-outs and screens" className="border-t border-rule">
      <h3 className="px-3.5 pt-2.5 pb-1 text-[13px] font-semibold">Read-outs and screens</h3>
      <ul>
        {screens.map((screen) => (
          <Row key={screen.function} screen={screen} />
        ))}
      </ul>
    </section>
  );
}

function Row({ screen }: { screen: Screen }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const { selection, select } = useSession();
  const chosen = selection.includes(screen.function);
  return (
    <li className={`border-t border-rule px-3.5 py-1.5 ${chosen ? "bg-wash" : ""}`}>
      <button
        type="button"
        aria-pressed={chosen}
        className="flex w-full justify-between gap-2 text-left hover:text-petrol"
        onClick={() => select([screen.function])}
      >
        <span className="truncate">{screen.name}</span>
        <span className="shrink-0 text-[11px] text-faint">
          {screen.colour} {screen.glow}
        </span>
      </button>
      <div className="mt-1 grid grid-cols-[minmax(0,1fr)_auto_auto] items-center gap-2">
        <ChoiceField
          bare
          label={`Over ${screen.name}`}
          value={screen.film ?? ""}
          options={FILMS}
          onCommit={(film) => void send([editFunction(screen.function, { film: film || null })])}
        />
        <span className="num text-[11px]">
          {screen.film
            ? `${Math.round(screen.passes * 100)} %, ${shown(screen.width, 0)} × ${shown(screen.height, 0)}`
            : "–"}
        </span>
        <LitButton of={screen.function} name={screen.name} />
      </div>
      {screen.aslant !== null && (
        <p className={`num mt-0.5 text-[11px] ${screen.aslant > screen.cone ? "text-judge" : "text-faint"}`}>
          seen {shown(screen.aslant, 0)}° off square, reads to {shown(screen.cone, 0)}°
        </p>
      )}
    </li>
  );
}
