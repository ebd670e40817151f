/** What the commands of the Face do on one module's board. */
import { toTray, turn } from "../../api/commands";
import { useChanges, useDesign } from "../../app/design";
import { type Doing, useCommands } from "../../app/registry";
import { useSession } from "../../app/session";
import { ACTIONS, placedSelection } from "./arrange";
import { nudge } from "./nudge";
import { useFace, VIEWS } from "./store";

interface Actions {
  zoom: (by: number) => void;
  fit: () => void;
  onPlaceNext: () => void;
}

/** The next of the views over the panel. */
function nextView(): void {
  const { view, set } = useFace.getState();
  const at = VIEWS.findIndex(([key]) => key === view);
  const next = VIEWS[(at + 1) % VIEWS.length];
  if (next) set({ view: next[0], picking: null, picked: [] });
}

export function useBoardKeys(module: string, { zoom, fit, onPlaceNext }: Actions): void {
  const view = useDesign();
  const changes = useChanges(view.id);
  const { select } = useSession.getState();
  const here = view.design.functions.filter((f) => f.place?.module === module);
  const step = (by: number) => {
    const now = here.findIndex((f) => f.id === useSession.getState().selection[0]);
    const next = here[(now + by + here.length + (now < 0 && by < 0 ? 1 : 0)) % here.length];
    if (next) select([next.id]);
  };
  /** For the selected parts that are on a panel, if any. */
  const selected = (work: (ids: string[]) => void) => () => {
    const ids = placedSelection(view.design.functions);
    if (ids.length > 0) work(ids);
  };
  const arranging: Record<string, Doing> = Object.fromEntries(
    ACTIONS.map((action) => [
      `face.${action.id}`,
      selected((ids) => {
        if (ids.length >= action.least) void changes.send(action.commands(ids, here));
      }),
    ]),
  );
  useCommands({
    ...arranging,
    "face.nudge": (event) => {
      const ids = placedSelection(view.design.functions);
      const movable = view.design.functions.filter((f) => ids.includes(f.id) && !f.locked);
      if (event && movable.length < ids.length) {
        useSession.getState().set({ notice: lockedWords(ids.length - movable.length) });
      }
      if (event) nudge(event, movable, changes);
    },
    "face.left": selected((ids) => void changes.send([turn(ids, 15)])),
    "face.right": selected((ids) => void changes.send([turn(ids, -15)])),
    "face.tray": selected((ids) => void changes.send([toTray(ids)])),
    "face.all": () => select(here.map((f) => f.id)),
    "face.next": () => step(1),
    "face.previous": () => step(-1),
    "face.place": onPlaceNext,
    "face.view": nextView,
    "face.measure": () => useFace.getState().set({ measuring: !useFace.getState().measuring }),
    "face.larger": () => zoom(1.25),
    "face.smaller": () => zoom(0.8),
    "face.fit": fit,
    "face.out": () => {
      const { measuring, picking, set } = useFace.getState();
      if (measuring || picking) set({ measuring: false, picking: null, picked: [] });
      else select([]);
    },
  });
}

const lockedWords = (many: number): string =>
  many === 1
    ? "A locked part stays where it is; L frees it"
    : `${many} locked parts stay where they are; L frees them`;
