/** Find anything by name: functions, parts, pins, stations, actions. */
import {
  Combobox,
  ComboboxInput,
  ComboboxOption,
  ComboboxOptions,
  Dialog,
  DialogPanel,
} from "@headlessui/react";
import { useMemo, useState } from "react";
import { useLocation } from "wouter";
import type { DesignView } from "../api/types";
import { ACTIONS, placedSelection } from "../stations/face/arrange";
import { type Changes, useChanges, useDesign } from "./design";
import { useGo } from "./place";
import { applyTheme, useSession } from "./session";
import { type Station, STATIONS } from "./stations";

interface Entry {
  id: string;
  name: string;
  kind: string;
  run: () => void;
}

export function Palette({ onClose }: { onClose: () => void }) {
  const view = useDesign();
  const changes = useChanges(view.id);
  const go = useGo(view.id);
  const [, navigate] = useLocation();
  const [text, setText] = useState("");
  const entries = useMemo(
    () => [
      ...functionEntries(view, go),
      ...pinEntries(view, go),
      ...arrangeEntries(view, changes),
      ...actionEntries(view, changes, go, navigate),
    ],
    [view, changes, go, navigate],
  );
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const found = entries
    .filter((e) => words.every((w) => `${e.name} ${e.kind}`.toLowerCase().includes(w)))
    .slice(0, 12);
  return (
    <Dialog open onClose={onClose} className="relative z-30">
      <div className="fixed inset-0 flex items-start justify-center bg-ink/30 pt-[12vh]">
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
              aria-label="Find a function, part, pin or action"
              placeholder="Find a function, part, pin or action"
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

/** Putting the selected parts in order, by name. */
function arrangeEntries(view: DesignView, changes: Changes): Entry[] {
  const here = view.design.functions.filter((f) => f.place != null);
  const ids = placedSelection(here);
  return ACTIONS.filter((a) => ids.length >= a.least).map((a) => ({
    id: `arrange ${a.id}`,
    name: `Arrange: ${a.words}`,
    kind: a.title,
    run: () => void changes.send(a.commands(ids, here)),
  }));
}

function pinEntries(view: DesignView, go: Go): Entry[] {
  const boards = new Map(view.design.controllers.map((c) => [c.id, c.name]));
  const names = new Map(view.design.functions.map((f) => [f.id, f.name]));
  return view.design.pins.map((p) => {
    const fn = p.line.split(".")[0] ?? "";
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

function actionEntries(view: DesignView, changes: Changes, go: Go, navigate: (to: string) => void): Entry[] {
  const { set, theme } = useSession.getState();
  const other = theme === "day" ? "night" : "day";
  return [
    ...STATIONS.map((s) => ({
      id: `go ${s.id}`,
      name: `Go to ${s.name}`,
      kind: `station, ${s.number}`,
      run: () => go(s.id),
    })),
    ...view.modules.map((p) => ({
      id: `panel ${p.id}`,
      name: p.name,
      kind: "module",
      run: () => {
        set({ module: p.id });
        go("face");
      },
    })),
    { id: "undo", name: "Undo", kind: "action, Z", run: () => void changes.undo() },
    { id: "redo", name: "Redo", kind: "action, Shift Z", run: () => void changes.redo() },
    {
      id: "designs",
      name: "Switch, copy, import or export designs",
      kind: "action",
      run: () => set({ dialog: "designs" }),
    },
    { id: "new", name: "Begin a new panel", kind: "action", run: () => navigate("/new") },
    {
      id: "theme",
      name: `${other === "night" ? "Night" : "Day"} theme`,
      kind: "action",
      run: () => {
        applyTheme(other);
        set({ theme: other });
      },
    },
    { id: "help", name: "Keys and help", kind: "action, ?", run: () => set({ dialog: "help" }) },
  ];
}
