/** What the core makes of the brief: side view, tolerance chain, beds, materials, money and hours. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";

export function useBrief() {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["brief", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/brief", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
}
