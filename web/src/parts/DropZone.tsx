import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { type DragEvent, type ReactNode, useRef, useState } from "react";
import { tone } from "../style/theme";

function hasFiles(event: DragEvent): boolean {
  return event.dataTransfer.types.includes("Files");
}

/** Takes files dropped anywhere on what it surrounds. */
export function DropZone(props: {
  /** Nothing takes files where one may not add any; the browser does not open them either. */
  onFiles: ((files: File[]) => void) | null;
  children: ReactNode;
}) {
  const { onFiles, children } = props;
  const [over, setOver] = useState(false);
  return (
    <Box
      data-testid="drop-zone"
      sx={{ position: "relative", height: "100%" }}
      onDragOver={(event) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        if (onFiles) setOver(true);
        else event.dataTransfer.dropEffect = "none";
      }}
      onDragLeave={(event) => {
        if (
          event.currentTarget === event.target ||
          !event.currentTarget.contains(event.relatedTarget as Node)
        )
          setOver(false);
      }}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const files = [...event.dataTransfer.files];
        if (files.length) onFiles?.(files);
      }}
    >
      {children}
      {over && (
        <Box
          sx={{
            position: "absolute",
            inset: 8,
            border: `3px dashed ${tone.here}`,
            bgcolor: "rgba(14,124,134,.08)",
            display: "grid",
            placeItems: "center",
            pointerEvents: "none",
            fontSize: 22,
            fontWeight: 600,
            color: tone.here,
            zIndex: 5,
          }}
        >
          Drop the model files
        </Box>
      )}
    </Box>
  );
}

/** The same by a file chooser, for keyboards and touch. */
export function ChooseFiles({ onFiles }: { onFiles: (files: File[]) => void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        accept=".ifc,.ifczip,.zip"
        data-testid="file-input"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = "";
          if (files.length) onFiles(files);
        }}
      />
      <Button variant="outlined" onClick={() => input.current?.click()} sx={{ mt: 0.75 }}>
        Choose files
      </Button>
    </>
  );
}
