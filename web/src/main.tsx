import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { App } from "./app/App";
import { applyTheme, useSession } from "./app/session";
import "./styles.css";

const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: 2 } } });

applyTheme(useSession.getState().theme);
const root = document.getElementById("root");
if (root) {
  createRoot(root).render(
    <StrictMode>
      <QueryClientProvider client={client}>
        <App />
      </QueryClientProvider>
    </StrictMode>,
  );
}
