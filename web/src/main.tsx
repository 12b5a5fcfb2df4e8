import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { NameGate } from "./people/NameGate";
import { ProjectPage } from "./project/ProjectPage";
import { StartPage } from "./start/StartPage";
import { theme } from "./theme";

const client = new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false } } });
const root = document.getElementById("root");
if (!root) throw new Error("the page has no root element");

createRoot(root).render(
  <StrictMode>
    <ThemeProvider theme={theme}>
      <CssBaseline />
      <QueryClientProvider client={client}>
        <BrowserRouter>
          <NameGate />
          <Routes>
            <Route path="/" element={<StartPage />} />
            <Route path="/p/:projectId" element={<ProjectPage />} />
            <Route path="/p/:projectId/v/:viewpointId" element={<ProjectPage />} />
            <Route path="*" element={<StartPage />} />
          </Routes>
        </BrowserRouter>
      </QueryClientProvider>
    </ThemeProvider>
  </StrictMode>,
);
