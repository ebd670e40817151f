/** The address: design, station and selection. */
import { useEffect } from "react";
import { useLocation } from "wouter";
import { useSession } from "./session";
import type { Station } from "./stations";

/** Go to a station of a design. */
export function useGo(design: string): (station: Station["id"]) => void {
  const [, navigate] = useLocation();
  return (station) => navigate(`/d/${design}/${station}${window.location.search}`);
}

/** Take panel and selection from the address once, then write them back as they change. */
export function useSelectionInAddress(): void {
  useEffect(() => {
    const asked = new URLSearchParams(window.location.search);
    const selection = asked.get("sel")?.split(",").filter(Boolean) ?? [];
    useSession.getState().set({ selection, module: asked.get("module") });
    return useSession.subscribe((now, before) => {
      if (now.selection === before.selection && now.module === before.module) return;
      const query = new URLSearchParams();
      if (now.module) query.set("module", now.module);
      if (now.selection.length && now.selection.length < 40) query.set("sel", now.selection.join(","));
      const text = query.toString().replaceAll("%2C", ",");
      window.history.replaceState(
        window.history.state,
        "",
        window.location.pathname + (text ? `?${text}` : ""),
      );
    });
  }, []);
}
