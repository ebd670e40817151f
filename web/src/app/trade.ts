/** What the core says of the trade before there is a design: usual machines, dangerous voltages, names of symbols. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../api/client";
import type { Machine, Trade } from "../api/types";

/** What each way of cutting is called. */
export const PROCESS_NAMES: readonly (readonly [Machine["kind"], string])[] = [
  ["laser", "laser"],
  ["mill", "mill"],
  ["printer", "printer"],
  ["hand", "drill and saw"],
];

/** Undefined until the server has said it. */
export function useTrade(): Trade | undefined {
  return useQuery({
    queryKey: ["trade"],
    queryFn: () => answered(api.GET("/api/trade")),
    retry: 20,
    retryDelay: 1000,
  }).data;
}
