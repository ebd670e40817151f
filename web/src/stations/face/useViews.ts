import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";

/** What the core draws over a panel for the views. */
export function useViews(panel: string, wanted: boolean) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["views", id, revision, panel],
    enabled: wanted,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/face/views/{panel}", {
          params: { path: { design_id: id, panel } },
        }),
      ),
    placeholderData: (before) => before,
  });
}
