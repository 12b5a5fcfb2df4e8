import Box from "@mui/material/Box";
import { useQuery } from "@tanstack/react-query";
import { tone } from "../style/theme";
import { Frame } from "./Frame";

/** What others made that is shipped with the application, each with its licence. */
export function NoticesPage() {
  const { data, error } = useQuery({
    queryKey: ["notices"],
    queryFn: () => import("./notices.json").then((file) => file.default),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <Frame title="Third-party notices">
      <Box sx={{ color: tone.soft, mb: 2, fontSize: 15 }}>
        Stair Path is built with the packages below. Open one to read its licence.
      </Box>
      {error && <Box sx={{ color: tone.wrong }}>The notices could not be loaded. Reload the page.</Box>}
      {data?.map(({ part, packages }) => (
        <Box component="section" key={part} sx={{ mb: 3 }}>
          <Box component="h2" sx={{ fontSize: 18, fontWeight: 600, m: 0, mb: 1 }}>
            {part}
          </Box>
          {packages.map(({ name, version, licence, text }) => (
            <Box
              component="details"
              key={`${name} ${version}`}
              sx={{
                borderTop: `1px solid ${tone.line}`,
                fontSize: 14,
                "&:last-of-type": { borderBottom: `1px solid ${tone.line}` },
              }}
            >
              <Box component="summary" sx={{ py: 0.75, cursor: "pointer", display: "flex", gap: 2 }}>
                <Box component="span" sx={{ fontWeight: 600, flex: "0 0 260px" }}>
                  {name}
                </Box>
                <Box component="span" sx={{ flex: "0 0 100px", color: tone.soft }}>
                  {version}
                </Box>
                <Box component="span" sx={{ color: tone.soft }}>
                  {licence}
                </Box>
              </Box>
              <Box
                component="pre"
                sx={{ whiteSpace: "pre-wrap", fontSize: 12.5, m: 0, mb: 1.5, p: 1.5, bgcolor: tone.paper }}
              >
                {text || "The package has no licence text of its own."}
              </Box>
            </Box>
          ))}
        </Box>
      ))}
    </Frame>
  );
}
