/** The keys that work at every station, from the list of commands. Typing in a field is never taken for a shortcut. */
import { useEffect } from "react";
import { useLocation } from "wouter";
import type { DesignView } from "../api/types";
import { useChanges, useDesign } from "./design";
import { applyFix } from "./fixes";
import { useGo } from "./place";
import { commandFor, type Doing, useCommands } from "./registry";
import { applyTheme, useSession } from "./session";
import { type Station, STATIONS } from "./stations";
import { goTo, inFocus, listed } from "./worklist";

function stepFinding(view: DesignView, station: Station["id"], by: number): void {
  const { scope, focus } = useSession.getState();
  const rows = listed(view.findings, station, scope).filter((f) => f.accepted == null);
  if (rows.length === 0) return;
  const now = rows.findIndex((f) => f.id === inFocus(rows, focus)?.id);
  const next = rows[(now + by + rows.length) % rows.length];
  if (next) goTo(next, view);
}

function acceptInFocus(view: DesignView, station: Station["id"]): void {
  const { scope, focus, set } = useSession.getState();
  const finding = inFocus(listed(view.findings, station, scope), focus);
  if (!finding || finding.accepted != null) return;
  if (finding.severity === "judge" || (finding.severity === "must" && finding.overridable))
    set({ dialog: "accept", focus: finding.id });
}

function otherTheme(): void {
  const { theme, set } = useSession.getState();
  const other = theme === "day" ? "night" : "day";
  applyTheme(other);
  set({ theme: other });
}

/** Listen for keys, and do what works at every station. */
export function useKeys(station: Station["id"]): void {
  const view = useDesign();
  const changes = useChanges(view.id);
  const go = useGo(view.id);
  const [, navigate] = useLocation();
  const { set, select } = useSession.getState();
  const going: Record<string, Doing> = Object.fromEntries(
    STATIONS.map((s) => [`go.${s.id}`, () => go(s.id)]),
  );
  useCommands({
    ...going,
    find: () => set({ dialog: "palette" }),
    help: () => set({ dialog: "help" }),
    designs: () => set({ dialog: "designs" }),
    new: () => navigate("/new"),
    theme: otherTheme,
    "finding.previous": () => stepFinding(view, station, -1),
    "finding.next": () => stepFinding(view, station, 1),
    "finding.settle": () => {
      const { scope, focus } = useSession.getState();
      void applyFix(view.id, (now) => inFocus(listed(now.findings, station, scope), focus)?.id, changes);
    },
    "finding.accept": () => acceptInFocus(view, station),
    undo: () => void changes.undo(),
    redo: () => void changes.redo(),
    worklist: () => set({ worklist: !useSession.getState().worklist }),
    out: () => select([]),
  });
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || useSession.getState().dialog !== null) return;
      const found = commandFor(event, station);
      if (!found) return;
      event.preventDefault();
      found[1](event);
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [station]);
}
