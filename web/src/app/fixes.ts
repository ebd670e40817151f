/** The fix of a finding, asked for: the server offers one only when it harms nothing. */
import { useQuery } from "@tanstack/react-query";
import { answered, api } from "../api/client";
import type { DesignView, Finding } from "../api/types";
import { type Changes, useDesign } from "./design";
import { useSession } from "./session";

const askFor = (id: string, finding: string) =>
  answered(
    api.GET("/api/designs/{design_id}/fix", { params: { path: { design_id: id }, query: { finding } } }),
  );

/** The fix that is offered for a finding of the design as it stands, while somebody looks at it. */
export function useFix(finding: Finding, wanted: boolean) {
  const { id, revision } = useDesign();
  return useQuery({
    queryKey: ["fix", id, revision, finding.id],
    queryFn: () => askFor(id, finding.id),
    enabled: wanted && finding.fixable && finding.accepted == null,
    gcTime: 60_000,
    retry: false,
  });
}

/** Carry out the fix of the finding that is picked once all earlier changes are kept. */
export async function applyFix(
  id: string,
  pick: (now: DesignView) => string | undefined,
  changes: Changes,
): Promise<void> {
  let finding: string | undefined;
  await changes.sendFrom((now) => {
    finding = pick(now);
    return [];
  });
  if (finding === undefined) return;
  const commands = (await askFor(id, finding)).fix?.commands ?? [];
  if (commands.length) await changes.send(commands);
  else useSession.getState().set({ notice: "No fix was found that breaks nothing else" });
}
