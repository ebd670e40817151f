import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import type { Fn } from "../../api/types";
import { useDesign } from "../../app/design";

/** The parts that could make a function, the best first. */
export function useCandidates(fn: Fn | undefined) {
  const { id, revision } = useDesign();
  const wanted = fn?.id ?? "";
  return useQuery({
    queryKey: ["candidates", id, revision, wanted],
    enabled: fn !== undefined,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/parts/candidates/{function_id}", {
          params: { path: { design_id: id, function_id: wanted } },
        }),
      ),
    placeholderData: (before) => (before?.function === wanted ? before : undefined),
  });
}
