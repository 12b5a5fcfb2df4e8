import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import NativeSelect from "@mui/material/NativeSelect";
import { useEffect, useState } from "react";
import { useSession } from "../open/session";
import { useOpen, useStageNews } from "../open/useStage";
import { isWhole, SIZES, WIDEST } from "../open/views/frame";
import { useViewState } from "../open/visibility/viewState";
import { DeskNote } from "../parts/desk";
import { face, tone } from "../style/theme";
import { FrameOver } from "./FrameOver";
import { useFraming } from "./framing";
import { useKeepFramed } from "./useKeepFramed";

const PREVIEW_PX = 880;
const SETTLED_MS = 400;

/** The picture of a view, widened or trimmed by its sides, and kept at a size for the screen or for print. */
export function FramePicture() {
  const { of, put } = useFraming();
  return (
    <Dialog
      open={of !== null}
      onClose={() => put({ of: null })}
      maxWidth={false}
      aria-label="Frame the picture"
    >
      {of && <Inside />}
    </Dialog>
  );
}

function Inside() {
  const { stage } = useOpen();
  const { frame, widthPx, put } = useFraming();
  const preview = usePreview();
  const keep = useKeepFramed();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState("");
  if (!frame) return null;
  const heightPx = Math.round(
    (widthPx / frame.aspect) * ((frame.top - frame.bottom) / (frame.right - frame.left)),
  );
  const done = async () => {
    setBusy(true);
    setSaid("");
    // The button says that it is being drawn before the page is busy with it.
    await new Promise((resolve) => window.setTimeout(resolve, 30));
    const kept = await keep();
    setBusy(false);
    if (kept) put({ of: null });
    else setSaid(useSession.getState().notice?.text ?? "");
  };
  return (
    <Box sx={{ p: 2, bgcolor: tone.paper, width: "min(92vw, 900px)" }}>
      <DeskNote>Drag the sides or use the arrow keys. The picture can include more than the view.</DeskNote>
      <Box
        sx={{
          position: "relative",
          my: 1,
          mx: "auto",
          aspectRatio: String(frame.aspect),
          maxHeight: "64vh",
          bgcolor: tone.film,
          overflow: "hidden",
        }}
      >
        {preview && (
          <Box
            component="img"
            src={preview}
            alt=""
            draggable={false}
            sx={{ width: "100%", height: "100%" }}
          />
        )}
        <FrameOver frame={frame} put={(next) => put({ frame: next })} />
      </Box>
      {said && (
        <Box role="alert" sx={{ color: tone.wrong, fontSize: 13, mb: 1 }}>
          {said}
        </Box>
      )}
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center" }}>
        <NativeSelect
          value={widthPx}
          inputProps={{ "aria-label": "Size of the picture" }}
          sx={{ fontSize: 13 }}
          onChange={(event) => put({ widthPx: Number(event.target.value) })}
        >
          {SIZES.map(([px, words]) => (
            <option key={px} value={px}>
              {words}
            </option>
          ))}
        </NativeSelect>
        <Box sx={{ fontFamily: face.figure, fontSize: 12.5, color: tone.soft }}>
          {widthPx} × {heightPx}
        </Box>
        <Button
          variant="text"
          disabled={isWhole(frame)}
          onClick={() => put({ frame: { aspect: frame.aspect, left: -1, right: 1, bottom: -1, top: 1 } })}
        >
          As the view
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button variant="text" onClick={() => put({ of: null })}>
          Cancel
        </Button>
        <Button variant="contained" disabled={busy || !stage()} onClick={() => void done()}>
          {busy ? "Drawing…" : "Save picture"}
        </Button>
      </Box>
    </Box>
  );
}

/** A small picture of the widest, drawn again once what is seen has come. */
function usePreview(): string | null {
  const { stage } = useOpen();
  const aspect = useFraming((s) => s.frame?.aspect);
  const asking = useViewState((s) => s.asking);
  const pending = useStageNews((s) => s.pending);
  const [preview, setPreview] = useState<string | null>(null);
  useEffect(() => {
    if (asking || pending || !aspect) return;
    const timer = window.setTimeout(() => {
      const part = { aspect, left: -WIDEST, right: WIDEST, bottom: -WIDEST, top: WIDEST };
      setPreview(stage()?.pictures.ofStage(PREVIEW_PX, false, part) ?? null);
    }, SETTLED_MS);
    return () => window.clearTimeout(timer);
  }, [stage, asking, pending, aspect]);
  return preview;
}
