/**
 * Changes on their way to the server. They go one after the other, wait here while the server is away, and outlive a
 * reload of the page: each is in the browser's store until the server has said that it is kept. A key makes one that
 * arrives twice count once. What was refused stays, in words, until somebody has read it.
 */
import type { QueryClient } from "@tanstack/react-query";
import { create } from "zustand";
import { answered, api, Refused, Unreachable } from "../api/client";
import type { CellText, Command, DesignView } from "../api/types";

/** What is asked of the server. */
export type Ask =
  | { to: "commands"; commands: Command[] }
  | { to: "line"; text: string; selection: string[] }
  | { to: "cells"; cells: CellText[] }
  | { to: "wish"; text: string; group: string }
  | { to: "undo" }
  | { to: "redo" };

export interface Waiting {
  key: string;
  design: string;
  ask: Ask;
  /** The revision it is made against, once it has been sent. */
  base: number | null;
  /** The revision it was kept as: it waits only for the page to show that. */
  kept: number | null;
}

export interface Refusal {
  waiting: Waiting;
  /** What was asked for, in words. */
  what: string;
  why: string;
}

export type Link = "kept" | "sending" | "waiting";

interface Queue {
  waiting: readonly Waiting[];
  refused: readonly Refusal[];
  link: Link;
  /** Why the line that was typed last was refused: it is said where it was typed. */
  line: string | null;
}

export const useQueue = create<Queue>(() => ({ waiting: [], refused: [], link: "kept", line: null }));

export const designKey = (id: string) => ["design", id] as const;

/** How often a batch is made against a newer revision when others are faster: it says only what it changes. */
const AGAIN = 3;
const PAUSE = 800;
const STORED = "waiting:";
const page = crypto.randomUUID();
const lock = (id: string) => `wing-board-${id}`;

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));
const whenAnswered = new Map<string, (view: DesignView | null) => void>();
let running = false;

function store(): void {
  const { waiting, refused } = useQueue.getState();
  const left = waiting.filter((one) => one.kept === null);
  if (left.length + refused.length === 0) localStorage.removeItem(STORED + page);
  else localStorage.setItem(STORED + page, JSON.stringify({ waiting: left, refused }));
}

function set(changes: Partial<Queue>): void {
  useQueue.setState(changes);
  if (!("waiting" in changes || "refused" in changes)) return;
  try {
    store();
    stored = true;
  } catch {
    stored = false; // the browser's store is full or forbidden
  }
}

/** Whether what waits is in the browser's store; if not, the page is not closed without asking. */
let stored = true;
window.addEventListener("beforeunload", (event) => {
  if (!stored && useQueue.getState().waiting.some((one) => one.kept === null)) event.preventDefault();
});

const change = (key: string, changes: Partial<Waiting>) =>
  set({
    waiting: useQueue.getState().waiting.map((one) => (one.key === key ? { ...one, ...changes } : one)),
  });
const leave = (key: string) => set({ waiting: useQueue.getState().waiting.filter((one) => one.key !== key) });

function post({ design, ask, key }: Waiting, base: number): Promise<DesignView> {
  const params = { path: { design_id: design } };
  switch (ask.to) {
    case "commands":
      return answered(
        api.POST("/api/designs/{design_id}/commands", {
          params,
          body: { base, key, commands: ask.commands },
        }),
      );
    case "line":
      return answered(
        api.POST("/api/designs/{design_id}/face/line", {
          params,
          body: { base, key, text: ask.text, selection: ask.selection },
        }),
      );
    case "cells":
      return answered(
        api.POST("/api/designs/{design_id}/brief/cells", { params, body: { base, key, cells: ask.cells } }),
      );
    case "wish": {
      const { text, group } = ask;
      return answered(
        api.POST("/api/designs/{design_id}/brief/wish", { params, body: { base, key, text, group } }),
      );
    }
    case "undo":
      return answered(api.POST("/api/designs/{design_id}/undo", { params, body: { base, key } }));
    case "redo":
      return answered(api.POST("/api/designs/{design_id}/redo", { params, body: { base, key } }));
  }
}

/** Try until the server answers. */
export async function untilAnswered<T>(attempt: () => Promise<T>): Promise<T> {
  for (;;) {
    try {
      set({ link: "sending" });
      const answer = await attempt();
      set({ link: "kept" });
      return answer;
    } catch (error) {
      if (!(error instanceof Unreachable)) {
        set({ link: "kept" });
        throw error;
      }
      set({ link: "waiting" });
      await pause(PAUSE);
    }
  }
}

const fetchHead = (id: string): Promise<DesignView> =>
  answered(api.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } }));

/** Whether a change of this design is on its way. */
export const isWaiting = (id: string): boolean =>
  useQueue.getState().waiting.some((one) => one.design === id && one.kept === null);

/** A design as the server has it; what the page shows already stays while a change of it is on its way, or is newer. */
export async function fetchDesign(client: QueryClient, id: string): Promise<DesignView> {
  const view = await fetchHead(id);
  const known = client.getQueryData<DesignView>(designKey(id));
  return known && (known.revision > view.revision || isWaiting(id)) ? known : view;
}

/** Put an answer of the server in place, with the lettering that did not change; never an older one over a newer. */
export function remember(client: QueryClient, view: DesignView): DesignView {
  const known = client.getQueryData<DesignView>(designKey(view.id));
  if (known && known.revision > view.revision) return view;
  const whole =
    view.partial && known ? { ...view, lettering: { ...known.lettering, ...view.lettering } } : view;
  client.setQueryData(designKey(view.id), { ...whole, partial: false });
  return view;
}

const newest = async (client: QueryClient, id: string): Promise<number> => {
  const known = client.getQueryData<DesignView>(designKey(id)) ?? (await fetchHead(id));
  return known.revision;
};

async function send(client: QueryClient, one: Waiting, left: number): Promise<DesignView> {
  try {
    return await untilAnswered(async () => {
      const base = one.base ?? (await newest(client, one.design));
      if (one.base === null) change(one.key, { base });
      return post(one, base);
    });
  } catch (error) {
    if (!(error instanceof Refused) || error.problem.head == null) throw error;
    const head = await untilAnswered(() => fetchHead(one.design));
    change(one.key, { base: head.revision });
    client.setQueryData(designKey(one.design), head);
    if (left === 0 || one.ask.to === "undo" || one.ask.to === "redo") throw error;
    return send(client, { ...one, base: head.revision }, left - 1);
  }
}

const WORDS: Record<Ask["to"], (ask: Ask) => string> = {
  commands: () => "A change",
  line: () => "The line",
  cells: (ask) =>
    ask.to === "cells"
      ? ask.cells
          .slice(0, 3)
          .map((c) => `“${c.text}”`)
          .join(", ")
      : "",
  wish: (ask) => (ask.to === "wish" ? `“${ask.text}”` : ""),
  undo: () => "Undo",
  redo: () => "Redo",
};

function refusalOf(waiting: Waiting, error: unknown): Refusal {
  const problem = error instanceof Refused ? error.problem : null;
  const late =
    problem?.head != null ? "Another page changed the design meanwhile; it is shown as it is now" : "";
  return {
    waiting: { ...waiting, base: null },
    what: problem?.what ?? WORDS[waiting.ask.to](waiting.ask),
    why: late || (problem?.detail ?? (error instanceof Error ? error.message : "That did not work")),
  };
}

async function run(client: QueryClient): Promise<void> {
  if (running) return;
  running = true;
  for (;;) {
    const one = useQueue.getState().waiting.find((other) => other.kept === null);
    if (!one) break;
    let view: DesignView | null = null;
    try {
      view = await send(client, one, AGAIN);
      change(one.key, { kept: view.revision });
      remember(client, view);
      if (
        !client
          .getQueryCache()
          .find({ queryKey: designKey(one.design) })
          ?.isActive()
      )
        leave(one.key);
    } catch (error) {
      leave(one.key);
      const refusal = refusalOf(one, error);
      if (one.ask.to === "line") set({ line: refusal.why });
      else set({ refused: [...useQueue.getState().refused, refusal] });
    }
    whenAnswered.get(one.key)?.(view);
    whenAnswered.delete(one.key);
  }
  running = false;
}

/** Put a change into the queue; resolves when it is kept, to null when it was refused (and that is said). */
export function ask(client: QueryClient, design: string, what: Ask): Promise<DesignView | null> {
  const one: Waiting = { key: crypto.randomUUID(), design, ask: what, base: null, kept: null };
  const done = new Promise<DesignView | null>((resolve) => whenAnswered.set(one.key, resolve));
  set({ waiting: [...useQueue.getState().waiting, one] });
  void run(client);
  return done;
}

/** Resolves when nothing waits any more. */
export async function emptied(): Promise<void> {
  while (useQueue.getState().waiting.some((one) => one.kept === null))
    await new Promise<void>((done) => {
      const stop = useQueue.subscribe(() => {
        stop();
        done();
      });
    });
}

/** Forget those that the page shows by now. */
export function shownUpTo(design: string, revision: number): void {
  const { waiting } = useQueue.getState();
  const left = waiting.filter((one) => one.design !== design || one.kept === null || one.kept > revision);
  if (left.length < waiting.length) set({ waiting: left });
}

/** The line is being typed anew. */
export const forgetLine = (): void => set({ line: null });

/** A refusal was read. */
export const read = (key: string): void =>
  set({ refused: useQueue.getState().refused.filter((one) => one.waiting.key !== key) });

/** Ask for a refused change once more, against the design as it is now. */
export function askAgain(client: QueryClient, { waiting }: Refusal): void {
  read(waiting.key);
  void ask(client, waiting.design, waiting.ask);
}

/** What a page had stored; null where that is no queue of ours. */
function readStored(text: string | null): Pick<Queue, "waiting" | "refused"> | null {
  try {
    const left = JSON.parse(text ?? "null") as Partial<Queue> | null;
    return left && Array.isArray(left.waiting) && Array.isArray(left.refused)
      ? { waiting: left.waiting, refused: left.refused }
      : null;
  } catch {
    return null;
  }
}

/** Take over what a page that is gone has left waiting. */
function adopt(client: QueryClient, id: string): void {
  const text = localStorage.getItem(STORED + id);
  localStorage.removeItem(STORED + id);
  const left = readStored(text);
  if (!left) return;
  const now = useQueue.getState();
  set({ waiting: [...left.waiting, ...now.waiting], refused: [...left.refused, ...now.refused] });
  void run(client);
}

let resumed = false;

/** Go on with what waited when a page was closed or loaded anew; a page that is still open keeps its own. */
export function resume(client: QueryClient): void {
  if (resumed) return;
  resumed = true;
  const others = Object.keys(localStorage)
    .filter((key) => key.startsWith(STORED))
    .map((key) => key.slice(STORED.length));
  const locks = (navigator as { locks?: LockManager }).locks;
  for (const id of others) {
    if (locks) void locks.request(lock(id), () => adopt(client, id));
    else adopt(client, id);
  }
  void locks?.request(lock(page), () => new Promise(() => undefined));
}
