/**
 * Asking the core what is round a part while it is dragged: one question at a time, always the newest.
 * When the hand stops for a frame, what would clash there is asked as well.
 */
import { answered, api } from "../../api/client";
import type { Command, DesignView } from "../../api/types";
import { useQueue } from "../../app/queue";
import { useSession } from "../../app/session";
import { commandsAfter } from "../../app/shown";

interface Question {
  view: DesignView;
  lead: string;
  commands: Command[];
}

/** More commands than that are not tried in a glance. */
const MOST = 50;

let asking = false;
let next: Question | null = null;
let round = 0;

export function probe(question: Question): void {
  next = question;
  if (!asking) void run();
}

/** Forget what is still being asked. */
export function stopProbing(): void {
  next = null;
  round += 1;
  useSession.getState().set({ around: null, clashes: null });
}

async function run(): Promise<void> {
  asking = true;
  while (next) {
    const { view, lead, commands } = next;
    const before = commandsAfter(view, useQueue.getState().waiting);
    const body = { base: view.revision, lead, commands: [...before, ...commands] };
    const mine = round;
    next = null;
    if (body.commands.length > MOST) continue;
    try {
      const path = { design_id: view.id };
      const around = await answered(
        api.POST("/api/designs/{design_id}/face/probe", { params: { path }, body }),
      );
      if (mine !== round) continue;
      useSession.getState().set({ around, clashes: null });
      await new Promise(requestAnimationFrame);
      if (next) continue;
      const clashes = await answered(
        api.POST("/api/designs/{design_id}/face/clashes", { params: { path }, body }),
      );
      if (mine === round) useSession.getState().set({ clashes });
    } catch {
      // A probe is only a glance: the change itself reports what is wrong.
    }
  }
  asking = false;
}
