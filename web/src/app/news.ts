/**
 * News from the server: revisions that another page kept, and how jobs stand. One stream for all pages of a browser,
 * which opens no more than a few connections to a server: one page listens and tells the others, the next when it goes.
 */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { create } from "zustand";
import { Refused } from "../api/client";
import type { DesignView, Judged, Progressed, Revised } from "../api/types";
import { designKey, isWaiting, resume, useQueue } from "./queue";

interface Jobs {
  jobs: Record<string, Progressed>;
  note: (job: Progressed) => void;
}

/** Every job that was told of, by its id. */
export const useJobs = create<Jobs>((set) => ({
  jobs: {},
  note: (job) => set((now) => ({ jobs: { ...now.jobs, [job.job]: job } })),
}));

/** Resolves when a job has ended, however it did; looks itself where the stream is silent. */
export function ended(job: string, look: () => Promise<boolean>): Promise<void> {
  return new Promise((done) => {
    const over = (state: string | undefined) => state === "done" || state === "stopped" || state === "failed";
    const finish = () => {
      leave();
      clearInterval(timer);
      done();
    };
    const leave = useJobs.subscribe((now) => {
      if (over(now.jobs[job]?.state)) finish();
    });
    const timer = setInterval(() => {
      look().then(
        (isOver) => isOver && finish(),
        // A server that was started anew knows nothing of it: there is nothing to wait for.
        (error: unknown) => error instanceof Refused && finish(),
      );
    }, 1500);
    if (over(useJobs.getState().jobs[job]?.state)) finish();
  });
}

const KINDS = ["hello", "revised", "judged", "job"] as const;
type Hear = (kind: (typeof KINDS)[number], data: string) => void;
const NEWS = "wing-board-news";

/** Hear the news, through this page's own stream or through that of another page; returns how to stop. */
function listen(hear: Hear): () => void {
  const others = new BroadcastChannel(NEWS);
  const left = new AbortController();
  others.onmessage = (event: MessageEvent<Parameters<Hear>>) => hear(...event.data);
  const stream = () =>
    new Promise<void>((done) => {
      if (left.signal.aborted) return done();
      const source = new EventSource("/api/events");
      for (const kind of KINDS) {
        source.addEventListener(kind, (event: MessageEvent<string>) => {
          hear(kind, event.data);
          others.postMessage([kind, event.data]);
        });
      }
      left.signal.addEventListener("abort", () => {
        source.close();
        done();
      });
    });
  const { locks } = navigator as { locks?: LockManager };
  void (locks ? locks.request(NEWS, { signal: left.signal }, stream) : stream()).catch(() => undefined);
  return () => {
    left.abort();
    others.close();
  };
}

/** As `listen`, but silent while the browser keeps the page for its “back”. */
function listenWhileShown(hear: Hear): () => void {
  let stop = listen(hear);
  const hide = () => stop();
  const show = (event: PageTransitionEvent) => {
    if (event.persisted) {
      stop = listen(hear);
      hear("hello", "");
    }
  };
  window.addEventListener("pagehide", hide);
  window.addEventListener("pageshow", show);
  return () => {
    window.removeEventListener("pagehide", hide);
    window.removeEventListener("pageshow", show);
    stop();
  };
}

/** Follow the server's news while this page is open. */
export function useNews(): void {
  const client = useQueryClient();
  useEffect(() => {
    const newest = new Map<string, number>();
    /** Ask for what others kept, unless an answer to a change of our own is about to bring it. */
    const follow = () => {
      for (const [id, revision] of newest) {
        const known = client.getQueryData<DesignView>(designKey(id));
        if (isWaiting(id)) continue;
        newest.delete(id);
        if (known && known.revision < revision) void client.invalidateQueries({ queryKey: designKey(id) });
      }
    };
    /** The server is there (again): what could not be read is asked for anew, and what waited is sent. */
    const catchUp = () => {
      void client.invalidateQueries({ predicate: (q) => q.state.status === "error" });
      void client.invalidateQueries({ queryKey: ["design"] });
    };
    resume(client);
    const leave = useQueue.subscribe(follow);
    const stop = listenWhileShown((kind, data) => {
      if (kind === "hello") catchUp();
      if (kind === "revised") {
        const told = JSON.parse(data) as Revised;
        newest.set(told.design, told.revision);
        follow();
        void client.invalidateQueries({ queryKey: ["designs"] });
      }
      if (kind === "judged") {
        const told = JSON.parse(data) as Judged;
        if (!isWaiting(told.design)) void client.invalidateQueries({ queryKey: designKey(told.design) });
      }
      if (kind === "job") useJobs.getState().note(JSON.parse(data) as Progressed);
    });
    return () => {
      leave();
      stop();
    };
  }, [client]);
}
