/** The open design: loaded, changed by commands one batch after the other, and kept by the server. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useMemo } from "react";
import { Unreachable } from "../api/client";
import type { CellText, Command, DesignView } from "../api/types";
import { ask, designKey, emptied, fetchDesign, shownUpTo, useQueue } from "./queue";
import { shownDesign } from "./shown";

/** How often a design is asked for while findings are being worked out: the news of them may come during a load. */
const JUDGING = 1500;
const isJudged = (view: DesignView | undefined) =>
  !view?.readiness.waits.some((wait) => wait.station === "light");

/** The newest revision of a design, as the server keeps it. */
export function useDesignQuery(id: string) {
  const client = useQueryClient();
  return useQuery({
    queryKey: designKey(id),
    queryFn: () => fetchDesign(client, id),
    retry: (count, error) => error instanceof Unreachable && count < 100,
    retryDelay: 1000,
    refetchInterval: (query) => (isJudged(query.state.data) ? false : JUDGING),
  });
}

export const DesignContext = createContext<DesignView | null>(null);

/** The open design; only inside a station. */
export function useDesign(): DesignView {
  const view = useContext(DesignContext);
  if (view === null) throw new Error("no design is open");
  return view;
}

/** The design as the page shows it: with what was moved and waits to be kept. */
export function useShown(view: DesignView | undefined): DesignView | undefined {
  const waiting = useQueue((s) => s.waiting);
  useEffect(() => {
    if (view) shownUpTo(view.id, view.revision);
  }, [view]);
  return useMemo(() => view && shownDesign(view, waiting), [view, waiting]);
}

export interface Changes {
  /** Carry out commands; resolves when they are kept, to null when they were refused (which is said). */
  send: (commands: Command[]) => Promise<DesignView | null>;
  /** What is typed into the number line, for the selected parts. */
  type: (text: string, selection: string[]) => Promise<DesignView | null>;
  /** Cells of the function list, as they are typed. */
  fill: (cells: CellText[]) => Promise<DesignView | null>;
  /** A function typed in one line. */
  wish: (text: string, group: string) => Promise<DesignView | null>;
  undo: () => Promise<DesignView | null>;
  redo: () => Promise<DesignView | null>;
  /** Commands worked out from the design as it is once all earlier changes are kept; none are not sent. */
  sendFrom: (work: (view: DesignView) => Command[]) => Promise<DesignView | null>;
  /** The design as it is once all earlier changes are kept. */
  settled: () => Promise<DesignView | undefined>;
}

/** The ways to change the open design; they go one after the other. */
export function useChanges(id: string): Changes {
  const client = useQueryClient();
  return useMemo(() => {
    const now = () => client.getQueryData<DesignView>(designKey(id));
    const send = (commands: Command[]) => ask(client, id, { to: "commands", commands });
    return {
      send,
      type: (text, selection) => ask(client, id, { to: "line", text, selection }),
      fill: (cells) => ask(client, id, { to: "cells", cells }),
      wish: (text, group) => ask(client, id, { to: "wish", text, group }),
      undo: () => ask(client, id, { to: "undo" }),
      redo: () => ask(client, id, { to: "redo" }),
      settled: async () => {
        await emptied();
        return now();
      },
      sendFrom: async (work) => {
        await emptied();
        const view = now();
        const commands = view ? work(view) : [];
        return commands.length ? send(commands) : null;
      },
    };
  }, [client, id]);
}
