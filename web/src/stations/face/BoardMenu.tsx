/** What can be done where the pointer is: with what is selected there, or with the bare plate. */
import { Menu, MenuButton, MenuItem, MenuItems } from "@headlessui/react";
import { useEffect, useRef } from "react";
import type { Fn } from "../../api/types";
import { doingOf, everyCommand, keyWords, perform } from "../../app/registry";
import { useSession } from "../../app/session";
import type { PointMm } from "../../canvas/camera";
import { ACTIONS } from "./arrange";
import type { BoardContext } from "./held";
import { newGraphic, type GraphicKind } from "./newGraphic";
import { plateAt, type PlateOnBoard } from "./plates";

export interface MenuAt {
  x: number;
  y: number;
  /** The same on the board (mm). */
  on: PointMm;
  plates: readonly PlateOnBoard[];
}

interface Entry {
  id: string;
  words: string;
  keys: string;
  run: () => void;
}

const WITH_SELECTION = [
  "face.left", "face.right", "face.lock", "face.copy", "face.row", "face.column", "face.align-y",
  "face.distribute-x", "face.mirror", "face.fit-selection", "face.tray",
]; // prettier-ignore
const WITHOUT = ["face.place", "face.all", "face.measure", "view.fit", "view.true"];

/** The commands of the registry that can be done now, as entries. */
function listed(ids: readonly string[], selected: number): Entry[] {
  const least = new Map(ACTIONS.map((a) => [`face.${a.id}`, a.least]));
  return ids.flatMap((id) => {
    const command = everyCommand().find((c) => c.id === id);
    if (!command || !doingOf(id) || (least.get(id) ?? 0) > selected) return [];
    return [{ id, words: command.words, keys: command.keys[0] ?? "", run: () => void perform(id) }];
  });
}

const GRAPHICS: readonly [GraphicKind, string][] = [
  ["text", "Add a text here"],
  ["placard", "Add a placard here"],
  ["symbol", "Add a symbol here"],
  ["bracket", "Add a bracket"],
  ["box", "Add a box"],
];

interface Props {
  at: MenuAt;
  here: readonly Fn[];
  context: BoardContext;
  onClose: () => void;
}

export function BoardMenu({ at, here, context, onClose }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const selection = useSession((s) => s.selection);
  const placed = here.filter((f) => selection.includes(f.id));
  useEffect(() => {
    button.current?.dispatchEvent(new KeyboardEvent("keydown", { key: "ArrowDown", bubbles: true }));
  }, []);
  const plate = plateAt(at.plates, at.on) ?? at.plates[0];
  const add = (kind: GraphicKind) => {
    if (!plate) return;
    const spot = { x: at.on.x - plate.x, y: at.on.y - plate.y };
    void context.changes.send([newGraphic(kind, plate.module, placed, spot)]);
  };
  const drawn = GRAPHICS.filter(
    ([kind]) => (selection.length === 0) !== (kind === "bracket" || kind === "box"),
  ).map(([kind, words]): Entry => ({ id: `add-${kind}`, words, keys: "", run: () => add(kind) }));
  const entries = [...listed(selection.length ? WITH_SELECTION : WITHOUT, placed.length), ...drawn];
  return (
    <Menu as="div" className="fixed z-30" style={{ left: at.x, top: at.y }}>
      {({ open }) => (
        <>
          <MenuButton ref={button} className="size-0 opacity-0" aria-label="What can be done here" />
          <Closed open={open} onClose={onClose} />
          <MenuItems
            anchor="bottom start"
            className="z-30 min-w-56 rounded border border-rule bg-sheet py-1 text-[12px] outline-none"
          >
            {entries.map((entry) => (
              <MenuItem key={entry.id}>
                <button
                  type="button"
                  className="flex w-full justify-between gap-6 px-3 py-1 text-left data-focus:bg-wash"
                  onClick={entry.run}
                >
                  {entry.words}
                  {entry.keys && <kbd className="num text-faint">{keyWords(entry.keys)}</kbd>}
                </button>
              </MenuItem>
            ))}
          </MenuItems>
        </>
      )}
    </Menu>
  );
}

/** Tells once the menu was open and is no longer. */
function Closed({ open, onClose }: { open: boolean; onClose: () => void }) {
  const was = useRef(false);
  useEffect(() => {
    if (was.current && !open) onClose();
    was.current = open;
  }, [open, onClose]);
  return null;
}
