/**
 * Asking the core what is round a part while it is dragged: one question at a time, always the newest.
 * When the hand stops for a frame, what would clash there is asked as well.
 */
import { answered, api } from "../../api/client";
import type { Command } from "../../api/types";
import { useSession } from "../../app/session";

interface Question {
  design: string;
  base: number;
  lead: string;
  commands: Command[];
}

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
    const { design, ...body } = next;
    const mine = round;
    next = null;
    try {
      const path = { design_id: design };
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
