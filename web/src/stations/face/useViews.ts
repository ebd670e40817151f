import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";

/** What the core draws over a module for the views. */
export function useViews(module: string, wanted: boolean) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["views", id, revision, module],
    enabled: wanted,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/face/views/{module}", {
          params: { path: { design_id: id, module } },
        }),
      ),
    placeholderData: (before) => before,
  });
}
