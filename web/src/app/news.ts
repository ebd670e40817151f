/** News from the server: revisions that another page kept, and how jobs stand. One stream for the whole page. */
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

/** Follow the server's news while this page is open. */
export function useNews(): void {
  const client = useQueryClient();
  useEffect(() => {
    const stream = new EventSource("/api/events");
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
    stream.addEventListener("hello", catchUp);
    stream.addEventListener("revised", (event) => {
      const told = JSON.parse(event.data) as Revised;
      newest.set(told.design, told.revision);
      follow();
      void client.invalidateQueries({ queryKey: ["designs"] });
    });
    stream.addEventListener("judged", (event) => {
      const told = JSON.parse(event.data) as Judged;
      if (!isWaiting(told.design)) void client.invalidateQueries({ queryKey: designKey(told.design) });
    });
    stream.addEventListener("job", (event) => useJobs.getState().note(JSON.parse(event.data) as Progressed));
    return () => {
      leave();
      stream.close();
    };
  }, [client]);
}
