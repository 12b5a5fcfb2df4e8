import { CacheProvider } from "@emotion/react";
import CssBaseline from "@mui/material/CssBaseline";
import { ThemeProvider } from "@mui/material/styles";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { BrowserRouter, Route, Routes } from "react-router";
import { Away, Refused } from "../api/client";
import { useLettering } from "../open/lettering";
import { AwayLine } from "../parts/AwayLine";
import { AccountPage } from "../start/AccountPage";
import { AuthorizePage } from "../start/AuthorizePage";
import { Gate } from "../start/Gate";
import { MembersPage } from "../start/MembersPage";
import { NoticesPage } from "../start/NoticesPage";
import { PeoplePage } from "../start/PeoplePage";
import { RecordPage } from "../start/RecordPage";
import { ServerPage } from "../start/ServerPage";
import { StartPage } from "../start/StartPage";
import { TokensPage } from "../start/TokensPage";
import { styles } from "../style/lettering";
import { theme } from "../style/theme";
import { ProjectPage } from "./ProjectPage";

const AGAIN_MS = 2000;
const client = new QueryClient({
  defaultOptions: {
    queries: {
      // While the server is away what is asked waits for it; what it refuses it would refuse again.
      retry: (count, error) => error instanceof Away || (!(error instanceof Refused) && count < 1),
      retryDelay: AGAIN_MS,
      refetchOnWindowFocus: false,
      networkMode: "always",
    },
    mutations: { networkMode: "always" },
  },
});
const root = document.getElementById("root");
if (!root) throw new Error("the page has no root element");

/** Letters as large as this person wants them, on every page. */
function Letters() {
  useLettering();
  return null;
}

createRoot(root).render(
  <StrictMode>
    <CacheProvider value={styles}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <Letters />
        <QueryClientProvider client={client}>
          <BrowserRouter>
            <AwayLine />
            <Gate>
              <Routes>
                <Route path="/" element={<StartPage />} />
                <Route path="/p/:projectId" element={<ProjectPage />} />
                <Route path="/p/:projectId/v/:viewpointId" element={<ProjectPage />} />
                <Route path="/p/:projectId/t/:topicId" element={<ProjectPage />} />
                <Route path="/p/:projectId/members" element={<MembersPage />} />
                <Route path="/p/:projectId/record" element={<RecordPage />} />
                <Route path="/record" element={<RecordPage />} />
                <Route path="/tokens" element={<TokensPage />} />
                <Route path="/notices" element={<NoticesPage />} />
                <Route path="/people" element={<PeoplePage />} />
                <Route path="/authorize" element={<AuthorizePage />} />
                <Route path="/account" element={<AccountPage />} />
                <Route path="/server" element={<ServerPage />} />
                <Route path="*" element={<StartPage />} />
              </Routes>
            </Gate>
          </BrowserRouter>
        </QueryClientProvider>
      </ThemeProvider>
    </CacheProvider>
  </StrictMode>,
);
