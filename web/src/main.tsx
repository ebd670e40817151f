import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { EVERYWHERE } from "./app/commands";
import type { Views } from "./app/Frame";
import { declare } from "./app/registry";
import { applyTheme, useSession } from "./app/session";
import { BRIEF } from "./stations/brief/commands";
import { FACE } from "./stations/face/commands";
import { LIGHT } from "./stations/light/commands";
import { PARTS } from "./stations/parts/commands";
import { CUT } from "./stations/cut/commands";
import { STACK } from "./stations/stack/commands";
import { WIRE } from "./stations/wire/commands";
import { fetchAhead, fetched } from "./ui/fetched";
import { Guarded } from "./ui/Guarded";
import "./styles.css";

const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: 2 } } });

/** The stations and the commands of all of them. */
const VIEWS: Views = {
  brief: fetched(() => import("./stations/brief/Brief")),
  parts: fetched(() => import("./stations/parts/Parts")),
  face: fetched(() => import("./stations/face/Face")),
  stack: fetched(() => import("./stations/stack/Stack")),
  light: fetched(() => import("./stations/light/Light")),
  cut: fetched(() => import("./stations/cut/Cut")),
  wire: fetched(() => import("./stations/wire/Wire")),
};
declare([...BRIEF, ...PARTS, ...FACE, ...STACK, ...LIGHT, ...CUT, ...WIRE, ...EVERYWHERE]);

applyTheme(useSession.getState().theme);
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <Guarded what="Wing Board">
          <App views={VIEWS} />
        </Guarded>
      </QueryClientProvider>
    </StrictMode>,
  );
}
fetchAhead();
