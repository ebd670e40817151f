/** The sheets on their beds, and what is done to one, as the core has them. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import type { SheetLine, SheetPlan } from "../../api/types";
import { useDesign } from "../../app/design";

export function useSheets() {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["sheets", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/sheets", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
}

export function useSurface() {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["surface", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/surface", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
}

/** @param revision Of the sheets: right after a change it is older than the design's, and so is the sheet. */
export function planQuery(id: string, sheet: SheetLine | undefined, revision: number) {
  return {
    queryKey: ["sheet", id, sheet?.id, revision],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/sheets/{sheet}", {
          params: { path: { design_id: id, sheet: sheet?.id ?? "" } },
        }),
      ),
  };
}

export function useSheetPlan(sheet: SheetLine | undefined, revision: number) {
  const { id } = useDesign();
  return useQuery({
    ...planQuery(id, sheet, revision),
    enabled: sheet !== undefined,
    placeholderData: (before) => (before?.id === sheet?.id ? before : undefined),
  });
}

/** An operation with when it begins and ends (s), and when each of its cuts does. */
export interface Timed {
  operation: SheetPlan["operations"][number];
  start: number;
  end: number;
  ends: number[];
}

export function timed(plan: SheetPlan): Timed[] {
  let at = 0;
  return plan.operations.map((operation) => {
    const start = at;
    const ends = operation.cuts.map((cut) => (at += cut.seconds));
    return { operation, start, end: at, ends };
  });
}

/** Minutes and seconds: 14:02. */
export const clock = (seconds: number): string => {
  const whole = Math.round(seconds);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, "0")}`;
};
