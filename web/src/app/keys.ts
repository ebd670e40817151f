/** The keys that work at every station. Typing in a field is never taken for a shortcut. */
import { useEffect } from "react";
import { move, toTray, turn } from "../api/commands";
import type { DesignView } from "../api/types";
import { type Changes, useChanges, useDesign } from "./design";
import { useGo } from "./place";
import { applyFix } from "./fixes";
import { useSession } from "./session";
import { type Station, STATIONS } from "./stations";
import { goTo, inFocus, listed } from "./worklist";

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

const typing = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

const placedOf = (view: DesignView, ids: readonly string[]): string[] =>
  ids.filter((id) => view.design.functions.some((f) => f.id === id && f.place != null));

function stepFinding(view: DesignView, station: Station["id"], by: number): void {
  const { scope, focus } = useSession.getState();
  const rows = listed(view.findings, station, scope).filter((f) => f.accepted == null);
  if (rows.length === 0) return;
  const now = rows.findIndex((f) => f.id === inFocus(rows, focus)?.id);
  const next = rows[(now + by + rows.length) % rows.length];
  if (next) goTo(next, view);
}

function settle(view: DesignView, station: Station["id"], changes: Changes): void {
  const { scope, focus } = useSession.getState();
  void applyFix(view.id, (now) => inFocus(listed(now.findings, station, scope), focus)?.id, changes);
}

function acceptInFocus(view: DesignView, station: Station["id"]): void {
  const { scope, focus, set } = useSession.getState();
  const finding = inFocus(listed(view.findings, station, scope), focus);
  if (!finding || finding.accepted != null) return;
  if (finding.severity === "judge" || (finding.severity === "must" && finding.overridable))
    set({ dialog: "accept", focus: finding.id });
}

function nudge(event: KeyboardEvent, view: DesignView, changes: Changes): boolean {
  const way = ARROWS[event.key];
  const ids = placedOf(view, useSession.getState().selection);
  if (!way || ids.length === 0) return false;
  const step = event.altKey ? 0.1 : event.shiftKey ? 10 : 1;
  void changes.send([move(ids, way[0] * step, way[1] * step)]);
  return true;
}

function onPlaced(key: string, view: DesignView, changes: Changes): boolean {
  const ids = placedOf(view, useSession.getState().selection);
  if (ids.length === 0) return false;
  if (key === "r" || key === "R") void changes.send([turn(ids, key === "r" ? 15 : -15)]);
  else if (key === "Delete" || key === "Backspace") void changes.send([toTray(ids)]);
  else return false;
  return true;
}

function plainKey(event: KeyboardEvent, view: DesignView, station: Station["id"], changes: Changes): boolean {
  const { set, select, dialog } = useSession.getState();
  switch (event.key) {
    case "/":
      set({ dialog: "palette" });
      return true;
    case "?":
      set({ dialog: "help" });
      return true;
    case "[":
    case "]":
      stepFinding(view, station, event.key === "]" ? 1 : -1);
      return true;
    case "s":
      settle(view, station, changes);
      return true;
    case "a":
      acceptInFocus(view, station);
      return true;
    case "z":
      void changes.undo();
      return true;
    case "Z":
      void changes.redo();
      return true;
    case "w":
      set({ worklist: !useSession.getState().worklist });
      return true;
    case "Escape":
      if (dialog === null) select([]);
      return dialog === null;
    default:
      return onPlaced(event.key, view, changes);
  }
}

function withControl(event: KeyboardEvent, view: DesignView, changes: Changes): boolean {
  const key = event.key.toLowerCase();
  if (key === "k") useSession.getState().set({ dialog: "palette" });
  else if (key === "z" && !typing(event.target)) void (event.shiftKey ? changes.redo() : changes.undo());
  else if (key === "y" && !typing(event.target)) void changes.redo();
  else if (key === "a" && !typing(event.target)) {
    const module = useSession.getState().module;
    useSession
      .getState()
      .select(view.design.functions.filter((f) => f.place?.module === module).map((f) => f.id));
  } else return false;
  return true;
}

export function useKeys(station: Station["id"]): void {
  const view = useDesign();
  const changes = useChanges(view.id);
  const go = useGo(view.id);
  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      if (event.defaultPrevented || useSession.getState().dialog !== null) return;
      if (event.ctrlKey || event.metaKey) {
        if (withControl(event, view, changes)) event.preventDefault();
        return;
      }
      if (typing(event.target)) return;
      const there = STATIONS.find((s) => String(s.number) === event.key);
      if (there) go(there.id);
      else if (!nudge(event, view, changes) && !plainKey(event, view, station, changes)) return;
      event.preventDefault();
    };
    window.addEventListener("keydown", pressed);
    return () => window.removeEventListener("keydown", pressed);
  }, [view, changes, station, go]);
}
