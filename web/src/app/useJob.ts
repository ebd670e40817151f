/** One job of a station: started, followed, stopped, and its result fetched when it is done. */
import { useState } from "react";
import { answered, api } from "../api/client";
import type { JobView, Progressed } from "../api/types";
import { ended, useJobs } from "./news";
import { untilAnswered } from "./queue";
import { useSession } from "./session";

export interface RunningJob {
  /** How it stands, or null when none is running. */
  standing: Pick<Progressed, "done" | "words"> | null;
  /** Start one; resolves to the job when it is done, to null when it failed or was stopped (the notice says why). */
  run: (start: () => Promise<JobView>) => Promise<JobView | null>;
  stop: () => void;
}

const read = (job: string): Promise<JobView> =>
  answered(api.GET("/api/jobs/{job}", { params: { path: { job } } }));

export function useJob(): RunningJob {
  const [id, setId] = useState<string | null>(null);
  const told = useJobs((s) => (id ? s.jobs[id] : undefined));
  const run = async (start: () => Promise<JobView>): Promise<JobView | null> => {
    const { set } = useSession.getState();
    try {
      const job = await untilAnswered(start);
      setId(job.id);
      await ended(job.id, async () => !["waiting", "running"].includes((await read(job.id)).state));
      const over = await read(job.id);
      if (over.state === "failed") set({ notice: over.words });
      return over.state === "done" ? over : null;
    } catch (error) {
      set({ notice: error instanceof Error ? error.message : "That did not work" });
      return null;
    } finally {
      setId(null);
    }
  };
  const stop = () => {
    if (id) void api.POST("/api/jobs/{job}/stop", { params: { path: { job: id } } });
  };
  return { standing: id ? (told ?? { done: null, words: "Started" }) : null, run, stop };
}
