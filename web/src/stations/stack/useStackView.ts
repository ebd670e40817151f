/** The stack of a module, and a section through it, as the core has them. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";
import type { Line } from "./store";

export function useStackView(module: string | undefined) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["stack", id, module, revision],
    enabled: module !== undefined,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/stack/{module}", {
          params: { path: { design_id: id, module: module ?? "" } },
        }),
      ),
    placeholderData: (before) => (before?.module === module ? before : undefined),
  });
}

export function useSection(module: string, line: Line) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["section", id, module, revision, line],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/stack/{module}/section", {
          params: { path: { design_id: id, module }, query: { ...line } },
        }),
      ),
    placeholderData: (before) => before,
  });
}
