import "@mantine/core/styles.css";
import "@mantine/dropzone/styles.css";
import "@fontsource-variable/instrument-sans";
import "@fontsource-variable/jetbrains-mono";
import "./ui/global.css";
import { MantineProvider } from "@mantine/core";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter } from "react-router";
import { App } from "./App";
import { ProblemError } from "./api/client";
import { takeFirst } from "./api/first";
import { askAhead } from "./api/queries";
import { loadAhead } from "./screens";
import { theme } from "./ui/theme";

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5000,
      retry: (count, error) =>
        error instanceof ProblemError && (error.status === 0 || error.status >= 500) && count < 3,
    },
  },
});

takeFirst();
askAhead(queries, window.location.pathname);
loadAhead(window.location.pathname);

createRoot(document.getElementById("root") as HTMLElement).render(
  <StrictMode>
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={queries}>
        <BrowserRouter>
          <App />
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  </StrictMode>,
);
