/** News from the server: revisions that another page kept, and how jobs stand. One stream for the whole page. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { create } from "zustand";
import type { DesignView, Progressed, Revised } from "../api/types";
import { designKey } from "./design";

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
        () => undefined,
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
    const catchUp = () => void client.invalidateQueries({ queryKey: ["design"] });
    stream.addEventListener("hello", catchUp);
    stream.addEventListener("revised", (event) => {
      const told = JSON.parse(event.data) as Revised;
      const key = designKey(told.design);
      const known = client.getQueryData<DesignView>(key);
      if (known && known.revision < told.revision) void client.invalidateQueries({ queryKey: key });
      void client.invalidateQueries({ queryKey: ["designs"] });
    });
    stream.addEventListener("job", (event) => useJobs.getState().note(JSON.parse(event.data) as Progressed));
    return () => stream.close();
  }, [client]);
}
