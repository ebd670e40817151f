/** The open design: loaded, changed by commands one batch after the other, and kept by the server. */
import { type QueryClient, useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useMemo } from "react";
import { answered, api, Refused, Unreachable } from "../api/client";
import type { Command, DesignView } from "../api/types";
import { useSession } from "./session";

export const designKey = (id: string) => ["design", id] as const;

export function useDesignQuery(id: string) {
  return useQuery({
    queryKey: designKey(id),
    queryFn: () => answered(api.GET("/api/designs/{design_id}", { params: { path: { design_id: id } } })),
    retry: (count, error) => error instanceof Unreachable && count < 100,
    retryDelay: 1000,
  });
}

export const DesignContext = createContext<DesignView | null>(null);

/** The open design; only inside a station. */
export function useDesign(): DesignView {
  const view = useContext(DesignContext);
  if (view === null) throw new Error("no design is open");
  return view;
}

/** Put an answer of the server in place, with the lettering that did not change. */
export function remember(client: QueryClient, view: DesignView): DesignView {
  const known = client.getQueryData<DesignView>(designKey(view.id));
  const whole =
    view.partial && known ? { ...view, lettering: { ...known.lettering, ...view.lettering } } : view;
  client.setQueryData(designKey(view.id), { ...whole, partial: false });
  return view;
}

type Attempt = (base: number, key: string) => Promise<DesignView>;

const pause = (milliseconds: number) => new Promise((done) => setTimeout(done, milliseconds));
let queue: Promise<unknown> = Promise.resolve();

/** Try until the server answers; the key makes a batch that arrived twice count once. */
async function untilAnswered(attempt: () => Promise<DesignView>): Promise<DesignView> {
  const { set } = useSession.getState();
  for (;;) {
    try {
      set({ link: "sending" });
      const view = await attempt();
      set({ link: "kept" });
      return view;
    } catch (error) {
      if (!(error instanceof Unreachable)) {
        set({ link: "kept" });
        throw error;
      }
      set({ link: "waiting" });
      await pause(800);
    }
  }
}

/** Fetch the newest revision when another page was faster; says whether it was. */
async function reloadIfStale(client: QueryClient, id: string, error: unknown): Promise<boolean> {
  if (!(error instanceof Refused) || error.problem.head == null) return false;
  await client.refetchQueries({ queryKey: designKey(id) });
  return true;
}

/** How often a batch is made against a newer revision when others are faster: it says only what it changes. */
const AGAIN = 3;

export interface Changes {
  /** Carry out commands; resolves when they are kept, to null when they were refused (the notice says why). */
  send: (commands: Command[]) => Promise<DesignView | null>;
  undo: () => Promise<DesignView | null>;
  redo: () => Promise<DesignView | null>;
  /** Commands worked out from the design as it is once all earlier changes are kept; none are not sent. */
  sendFrom: (work: (view: DesignView) => Command[]) => Promise<DesignView | null>;
  /** Any other request that changes the design. */
  change: (attempt: Attempt) => Promise<DesignView | null>;
  /** The newest revision, once all earlier changes are kept. */
  settled: () => Promise<number>;
}

/** The ways to change the open design; batches go one after the other. */
export function useChanges(id: string): Changes {
  const client = useQueryClient();
  return useMemo(() => {
    const change = (attempt: Attempt, again = 0): Promise<DesignView | null> => {
      const key = crypto.randomUUID();
      const base = () => client.getQueryData<DesignView>(designKey(id))?.revision ?? 1;
      const attempted = async (left: number): Promise<DesignView> => {
        try {
          return await untilAnswered(() => attempt(base(), key));
        } catch (error) {
          const stale = await reloadIfStale(client, id, error);
          if (stale && left > 0) return attempted(left - 1);
          throw error;
        }
      };
      const next = queue.then(async () => {
        try {
          const view = remember(client, await attempted(again));
          useSession.getState().set({ notice: null });
          return view;
        } catch (error) {
          useSession.getState().set({ notice: error instanceof Error ? error.message : "That did not work" });
          return null;
        }
      });
      queue = next;
      return next;
    };
    const path = { design_id: id };
    const post = (commands: Command[]) =>
      change(
        (base, key) =>
          answered(
            api.POST("/api/designs/{design_id}/commands", {
              params: { path },
              body: { base, key, commands },
            }),
          ),
        AGAIN,
      );
    return {
      change,
      settled: () => queue.then(() => client.getQueryData<DesignView>(designKey(id))?.revision ?? 1),
      send: post,
      sendFrom: (work) =>
        queue.then(() => {
          const now = client.getQueryData<DesignView>(designKey(id));
          const commands = now ? work(now) : [];
          return commands.length ? post(commands) : null;
        }),
      undo: () =>
        change((base, key) =>
          answered(api.POST("/api/designs/{design_id}/undo", { params: { path }, body: { base, key } })),
        ),
      redo: () =>
        change((base, key) =>
          answered(api.POST("/api/designs/{design_id}/redo", { params: { path }, body: { base, key } })),
        ),
    };
  }, [client, id]);
}
