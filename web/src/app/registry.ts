/**
 * Every command of the page: what it is called, its keys, and where it works. Keys, palette and help are read off this
 * one list, so that none of them lies. What a command does is bound by whoever is on the page to do it.
 */
import { useEffect } from "react";
import type { Station } from "./stations";

export interface Listed {
  id: string;
  words: string;
  /** As the keyboard says them: `z`, `Z` with Shift, `Ctrl+k`, `ArrowLeft`. */
  keys: readonly string[];
  /** The station it belongs to; every one when left out. */
  station?: Station["id"];
  /** Acts only while the panel has the focus: elsewhere arrows scroll, and lists keep their keys. */
  panel?: true;
  /** With Shift and Alt as well, which mean a step of another size. */
  steps?: true;
  /** Works while a field is being typed into. */
  typing?: true;
  /** Left out of the palette: it makes no sense without its key. */
  keyOnly?: true;
  /** Its list handles the key itself. */
  ofList?: true;
}

export type Doing = (event?: KeyboardEvent) => void;

const listed: Listed[] = [];
const bound = new Map<string, Doing[]>();

/** Add commands to the list; each has an id of its own. */
export function declare(commands: readonly Listed[]): void {
  for (const command of commands) {
    if (listed.some((other) => other.id === command.id))
      throw new Error(`The command ${command.id} is there twice`);
    listed.push(command);
  }
}

export const everyCommand = (): readonly Listed[] => listed;

/** What each command does while this is on the page; one that is not named does nothing. */
export function useCommands(doing: Record<string, Doing | undefined>): void {
  useEffect(() => {
    const mine = Object.entries(doing).filter((entry): entry is [string, Doing] => entry[1] !== undefined);
    for (const [id, run] of mine) bound.set(id, [...(bound.get(id) ?? []), run]);
    return () => {
      for (const [id, run] of mine)
        bound.set(
          id,
          (bound.get(id) ?? []).filter((other) => other !== run),
        );
    };
  });
}

/** What a command does now; undefined while nobody is there to do it. */
export const doingOf = (id: string): Doing | undefined => bound.get(id)?.at(-1);

/** Do a command, from a button or the palette; says whether somebody was there to do it. */
export function perform(id: string): boolean {
  const run = doingOf(id);
  run?.();
  return run !== undefined;
}

const inField = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

/** A key with Control in a field in which nothing is being typed: it is the page's. */
const isClean = (event: KeyboardEvent): boolean =>
  (event.ctrlKey || event.metaKey) &&
  event.target instanceof HTMLElement &&
  event.target.dataset["clean"] === "true";

/** Whether the panel has the focus: it, or nothing else on the page, was clicked or tabbed to last. */
const onPanel = (target: EventTarget | null): boolean =>
  target === document.body
    ? document.querySelector("[data-board]") !== null
    : target instanceof Element && target.closest("[data-board], [data-board-tools]") !== null;

function pressed(event: KeyboardEvent, command: Listed): boolean {
  const control = event.ctrlKey || event.metaKey;
  return command.keys.some((key) => {
    if (key.startsWith("Ctrl+")) {
      const named = (event.shiftKey ? "Shift+" : "") + event.key.toLowerCase();
      return control && named === key.slice("Ctrl+".length);
    }
    return !control && event.key === key && (command.steps || !event.altKey);
  });
}

/** The command that a key stands for where it was pressed, and what that does; a station's own come first. */
export function commandFor(event: KeyboardEvent, station: Station["id"]): [Listed, Doing] | undefined {
  for (const command of listed) {
    if (command.ofList || (command.station && command.station !== station) || !pressed(event, command))
      continue;
    if (inField(event.target) && !command.typing && !isClean(event)) continue;
    if (command.panel && !onPanel(event.target)) continue;
    const run = doingOf(command.id);
    if (run) return [command, run];
  }
  return undefined;
}

const NAMES: Record<string, string> = {
  ArrowLeft: "←",
  ArrowRight: "→",
  ArrowUp: "↑",
  ArrowDown: "↓",
  PageUp: "Page up",
  PageDown: "Page down",
  Escape: "Esc",
  "-": "−",
};

/** A key as one reads it: `Shift Z`, `Ctrl K`, `←`. */
export function keyWords(key: string): string {
  const parts = key.length > 1 ? key.split("+").filter(Boolean) : [key];
  const last = parts.at(-1) ?? key;
  const shifted = last.length === 1 && last !== last.toLowerCase();
  const name = NAMES[last] ?? (last.length === 1 ? last.toUpperCase() : last);
  return [...parts.slice(0, -1), ...(shifted ? ["Shift"] : []), name].join(" ");
}
