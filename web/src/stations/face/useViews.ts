import { queryOptions, useQueries, useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";
import type { Views } from "./viewTypes";

const viewsOf = (id: string, revision: number, module: string) =>
  queryOptions({
    queryKey: ["views", id, revision, module],
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/face/views/{module}", {
          params: { path: { design_id: id, module } },
        }),
      ),
  });

/** What the core draws over a module for the views. */
export function useViews(module: string, wanted: boolean) {
  const { id, revision } = useDesign();
  return useQuery({
    ...viewsOf(id, revision, module),
    enabled: wanted,
    placeholderData: (before) => before,
  });
}

/** The same of several modules, in their order; undefined until it is known. */
export function useEveryView(modules: readonly string[]) {
  const { id, revision } = useDesign();
  return useQueries({
    queries: modules.map((module) => ({
      ...viewsOf(id, revision, module),
      placeholderData: (before: Views | undefined) => before,
    })),
  }).map((one) => one.data);
}
