/** Find anything by name: functions, parts, pins, modules, commands. */
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from "@headlessui/react";
import { useMemo, useState } from "react";
import type { DesignView } from "../api/types";
import { useDesign } from "./design";
import { useGo } from "./place";
import { doingOf, everyCommand, keyWords, perform } from "./registry";
import { useSession } from "./session";
import type { Station } from "./stations";

interface Entry {
  id: string;
  name: string;
  kind: string;
  run: () => void;
}

export function Palette({ onClose }: { onClose: () => void }) {
  const view = useDesign();
  const go = useGo(view.id);
  const [text, setText] = useState("");
  const entries = useMemo(
    () => [
      ...functionEntries(view, go),
      ...pinEntries(view, go),
      ...moduleEntries(view, go),
      ...commandEntries(),
    ],
    [view, go],
  );
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = entries
    .filter((e) => words.every((w) => `${e.name} ${e.kind}`.toLowerCase().includes(w)))
    .slice(0, 12);
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 flex items-start justify-center bg-scrim pt-[12vh]">
        <DialogPanel className="w-full max-w-xl rounded border border-rule bg-sheet p-2">
          <Combobox
            immediate
            onChange={(entry: Entry | null) => {
              onClose();
              entry?.run();
            }}
          >
            <ComboboxInput
              autoFocus
              aria-label="Find a function, part, pin or command"
              placeholder="Find a function, part, pin or command"
              className="h-9 w-full rounded border border-rule bg-sheet px-3"
              onChange={(event) => setText(event.target.value)}
            />
            <ComboboxOptions static className="mt-2">
              {found.map((entry) => (
                <ComboboxOption
                  key={entry.id}
                  value={entry}
                  className="flex cursor-pointer justify-between gap-4 rounded px-3 py-1.5 data-focus:bg-wash"
                >
                  <span className="truncate">{entry.name}</span>
                  <span className="shrink-0 text-faint">{entry.kind}</span>
                </ComboboxOption>
              ))}
              {found.length === 0 && <p className="px-3 py-2 text-faint">Nothing found.</p>}
            </ComboboxOptions>
          </Combobox>
        </DialogPanel>
      </div>
    </Dialog>
  );
}

type Go = (station: Station["id"]) => void;

function functionEntries(view: DesignView, go: Go): Entry[] {
  const parts = new Map(view.design.parts.map((p) => [p.id, p.name]));
  return view.design.functions.map((f) => ({
    id: f.id,
    name: f.name,
    kind: f.part ? (parts.get(f.part) ?? f.part) : "function",
    run: () => {
      const { select, set } = useSession.getState();
      select([f.id]);
      if (f.place) set({ module: f.place.module });
      go(f.place ? "face" : "brief");
    },
  }));
}

function pinEntries(view: DesignView, go: Go): Entry[] {
  const boards = new Map(view.design.controllers.map((c) => [c.id, c.name]));
  const names = new Map(view.design.functions.map((f) => [f.id, f.name]));
  return view.design.pins.map((p) => {
    const fn = view.owners[p.line] ?? "";
    return {
      id: `pin ${p.line}`,
      name: `${boards.get(p.controller)} pin ${p.pin}`,
      kind: `pin, ${names.get(fn) ?? fn}`,
      run: () => {
        useSession.getState().select([fn]);
        go("wire");
      },
    };
  });
}

function moduleEntries(view: DesignView, go: Go): Entry[] {
  return view.modules.map((p) => ({
    id: `module ${p.id}`,
    name: p.name,
    kind: "module",
    run: () => {
      useSession.getState().set({ module: p.id });
      go("face");
    },
  }));
}

/** The commands that somebody on the page is there to do. */
function commandEntries(): Entry[] {
  return everyCommand()
    .filter((c) => !c.keyOnly && doingOf(c.id) !== undefined)
    .map((c) => ({
      id: `command ${c.id}`,
      name: c.words,
      kind: ["command", ...c.keys.slice(0, 1).map(keyWords)].join(", "),
      run: () => void perform(c.id),
    }));
}
