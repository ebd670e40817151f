/** The light of a module, and the lamps of all functions, as the core has them. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../../api/client";
import { useDesign } from "../../app/design";

/** Asked for again as long as its night is being worked out. */
const SOON = 700;

export function useLightView(module: string | undefined) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["light", id, module, revision],
    enabled: module !== undefined,
    queryFn: () =>
      answered(
        api.GET("/api/designs/{design_id}/light/{module}", {
          params: { path: { design_id: id, module: module ?? "" } },
        }),
      ),
    placeholderData: (before) => (before?.module === module ? before : undefined),
    refetchInterval: (query) => (query.state.data?.working && query.state.data.lit ? SOON : false),
  });
}

export function useLamps() {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["lamps", id, revision],
    queryFn: () =>
      answered(api.GET("/api/designs/{design_id}/lamps", { params: { path: { design_id: id } } })),
    placeholderData: (before) => before,
  });
}
