/** Under the board: what can be done with what is selected, and how one looks at it. It never covers the plate. */
import { Popover, PopoverButton, PopoverPanel } from "@headlessui/react";
import type { Fn } from "../../api/types";
import { Looking, TOOL } from "../../app/Looking";
import { useChanges, useDesign } from "../../app/design";
import { useSession } from "../../app/session";
import type { Camera } from "../../canvas/useCamera";
import { ACTIONS, type Action, placedSelection } from "./arrange";
import { GRID } from "./snap";
import { useFace } from "./store";

const FIRST = ["row", "align-y", "distribute-x", "lock", "copy"];

export function BoardStrip({ here, camera }: { here: readonly Fn[]; camera: Camera }) {
  const measuring = useFace((s) => s.measuring);
  return (
    <div
      data-board-tools=""
      className="flex h-9 shrink-0 items-center gap-x-3 gap-y-1 overflow-hidden border-t border-rule bg-card px-3 max-[900px]:h-[68px] max-[900px]:flex-wrap"
    >
      <ArrangeTools here={here} />
      <span className="flex-1" />
      <Looking camera={camera}>
        <span className="max-[760px]:hidden">{measuring ? "measuring, Esc ends" : `snap ${GRID} mm`}</span>
      </Looking>
    </div>
  );
}

function ArrangeTools({ here }: { here: readonly Fn[] }) {
  const { id } = useDesign();
  const { send } = useChanges(id);
  const selection = useSession((s) => s.selection);
  const chosen = here.filter((f) => selection.includes(f.id));
  const view = useFace((s) => s.view);
  if (chosen.length === 0 && (view === "webs" || view === "hands"))
    return <Legend marks={view === "webs" ? WEBS : HANDS} />;
  if (chosen.length === 0)
    return (
      <p className="min-w-0 truncate text-[11px] text-faint max-[1400px]:hidden">
        Drag on the plate to select; Alt drags a copy; Space, or the middle button, moves the view
      </p>
    );
  const fits = ACTIONS.filter((a) => a.least <= chosen.length);
  const locked = chosen.every((f) => f.locked);
  const words = (action: Action) => (action.id === "lock" && locked ? "Unlock" : action.words);
  const act = (action: Action) => void send(action.commands(placedSelection(here), here));
  const rest = fits.filter((a) => !FIRST.includes(a.id));
  return (
    <div
      role="toolbar"
      aria-label="Arrange the selected parts"
      className="flex min-w-0 items-center gap-1 overflow-hidden"
    >
      {fits
        .filter((a) => FIRST.includes(a.id))
        .map((action) => (
          <button
            key={action.id}
            type="button"
            title={action.title}
            className={TOOL}
            onClick={() => act(action)}
          >
            {words(action)}
          </button>
        ))}
      {rest.length > 0 && (
        <Popover>
          <PopoverButton className={`${TOOL} text-faint`}>More…</PopoverButton>
          <PopoverPanel
            anchor="top start"
            className="z-20 flex max-w-xs flex-wrap gap-1 rounded border border-rule bg-card p-2"
          >
            {({ close }) => (
              <>
                {rest.map((action) => (
                  <button
                    key={action.id}
                    type="button"
                    title={action.title}
                    className={TOOL}
                    onClick={() => {
                      act(action);
                      close();
                    }}
                  >
                    {words(action)}
                  </button>
                ))}
              </>
            )}
          </PopoverPanel>
        </Popover>
      )}
    </div>
  );
}

type Marks = readonly (readonly [colour: string, dashes: string, words: string])[];

const WEBS: Marks = [
  ["var(--on-must)", "", "under half of what is needed"],
  ["var(--on-judge)", "", "too little"],
  ["var(--on-ok)", "3 3", "enough"],
];
const HANDS: Marks = [
  ["var(--on-ok)", "", "what is touched"],
  ["var(--on-judge)", "", "guards"],
  ["var(--on-note)", "3 3", "room a finger needs"],
  ["var(--on-reach)", "", "reach of the free hand"],
  ["var(--on-sweep)", "", "a sweep"],
];

/** What the colours of a view mean. */
function Legend({ marks }: { marks: Marks }) {
  return (
    <ul className="flex min-w-0 flex-wrap gap-x-3 overflow-hidden text-[11px]/[14px] text-faint">
      {marks.map(([colour, dashes, words]) => (
        <li key={words} className="flex items-center gap-1">
          <svg width="18" height="8" aria-hidden="true">
            <path d="M0 4H18" stroke="var(--casing)" strokeWidth="5" />
            <path d="M0 4H18" stroke={colour} strokeWidth="3" strokeDasharray={dashes || undefined} />
          </svg>
          {words}
        </li>
      ))}
    </ul>
  );
}
