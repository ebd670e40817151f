/** Which findings the worklist shows, and going to the place of one. */
import type { DesignView, Finding } from "../api/types";
import { type Scope, useSession } from "./session";
import type { Station } from "./stations";

export function listed(findings: readonly Finding[], station: Station["id"], scope: Scope): Finding[] {
  return findings.filter((f) => scope === "all" || f.station === station);
}

/** The finding the keys act on: the chosen one, or else the first unsettled. */
export function inFocus(rows: readonly Finding[], focus: string | null): Finding | undefined {
  return rows.find((f) => f.id === focus) ?? rows.find((f) => f.accepted == null);
}

/** Select what a finding is about and show its panel. */
export function goTo(finding: Finding, view: DesignView): void {
  const functions = new Set(view.design.functions.map((f) => f.id));
  const { set, select } = useSession.getState();
  select(finding.subjects.filter((id) => functions.has(id)).slice(0, 40));
  set({ focus: finding.id, ...(finding.spot ? { module: finding.spot.module } : {}) });
}
