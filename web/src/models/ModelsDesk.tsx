import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import NativeSelect from "@mui/material/NativeSelect";
import { Link } from "react-router";
import type { ModelCard } from "../api/client";
import { grouped } from "../api/locale";
import { useCorrections, useModelAct, useModels } from "../api/queries";
import { bytesSaid, MB } from "../open/bytes";
import { useRoom } from "../open/room";
import { withErrorNotice } from "../open/session";
import { doAct } from "../open/undoLine";
import { uploadsOf, useUploads } from "../open/uploads";
import { useOpen } from "../open/useStage";
import { ChooseFiles } from "../parts/DropZone";
import { DeskHeading, DeskNote } from "../parts/desk";
import { Greyed, Only, WhyNot } from "../parts/Only";
import { counted } from "../parts/words";
import { tone } from "../style/theme";
import { Alignment } from "./Alignment";
import { TakenOut } from "./TakenOut";
import { UploadList } from "./UploadList";
import { WhatDiffers } from "./WhatDiffers";

/** The model files: how their reading goes, how they line up, what is wrong with them. */
export function ModelsDesk() {
  const { projectId } = useOpen();
  const { data, error } = useModels(projectId);
  const room = useRoom(projectId).data;
  const uploads = useUploads((s) => s.items.filter((u) => u.projectId === projectId).length);
  return (
    <Box>
      <Only to="change the models">
        <DeskHeading>Add models</DeskHeading>
        <DeskNote>Drop .ifc or .ifczip files anywhere on the page, or</DeskNote>
        <ChooseFiles onFiles={(files) => uploadsOf(projectId).add(files, room)} />
        {room && (
          <DeskNote>
            A file may have {bytesSaid(room.limits.file_mb * MB)}. This project holds{" "}
            {bytesSaid(room.storage_bytes)} of at most {bytesSaid(room.limits.storage_mb * MB)}, and{" "}
            {counted(room.components, "component")} of at most {grouped(room.limits.components)}.
          </DeskNote>
        )}
      </Only>
      {uploads > 0 && <UploadList projectId={projectId} />}
      <DeskHeading>{data ? counted(data.length, "model") : "Models"}</DeskHeading>
      <WhyNot to="change the models" />
      {error && <DeskNote>{error.message}</DeskNote>}
      {data?.map((model) => (
        <Model key={model.id} model={model} />
      ))}
      <Only to="change the models">
        <TakenOut />
      </Only>
    </Box>
  );
}

function Model({ model }: { model: ModelCard }) {
  const { projectId } = useOpen();
  const act = useModelAct(projectId);
  const run = (what: "cancel" | "retry" | "stand" | "remove" | "restore") =>
    withErrorNotice(() => act.mutateAsync({ id: model.id, act: what }));
  const remove = () =>
    doAct(
      { name: `removed ${model.name}`, undo: () => run("restore"), redo: () => run("remove") },
      `${model.name} was removed.`,
    );
  const busy = model.status === "waiting" || model.status === "reading";
  return (
    <Box data-testid="model" data-status={model.status} sx={{ borderTop: `1px solid ${tone.line}`, py: 1 }}>
      <Box sx={{ fontWeight: 600, fontSize: 14, overflowWrap: "anywhere" }}>{model.name}</Box>
      {busy && (
        <Box sx={{ my: 0.75 }}>
          <LinearProgress
            variant={model.status === "waiting" ? "indeterminate" : "determinate"}
            value={model.share * 100}
            color="secondary"
          />
          <Box sx={{ fontSize: 12.5, color: tone.soft, mt: 0.25 }}>
            {model.status === "waiting" ? "Waiting" : `Reading, ${Math.round(model.share * 100)} %`}
            {model.schema_name && ". What was read before stays in use until then."}
          </Box>
        </Box>
      )}
      {(model.status === "failed" || model.status === "cancelled") && (
        <Box sx={{ color: model.status === "failed" ? tone.wrong : tone.soft, fontSize: 13, my: 0.5 }}>
          {model.message}
          {model.schema_name && " The previous issue stays in use."}
        </Box>
      )}
      {model.schema_name && <Read model={model} />}
      <Only to="change the models">
        <Box sx={{ display: "flex", gap: 1, mt: 0.5 }}>
          {busy && (
            <Button variant="text" onClick={() => void run("cancel")}>
              Cancel
            </Button>
          )}
          {!busy && (
            <Button variant="text" onClick={() => void run("retry")}>
              Read again
            </Button>
          )}
          {!busy && (
            <Button variant="text" onClick={() => void remove()}>
              Remove
            </Button>
          )}
          <Button variant="text" component={Link} to={`/p/${projectId}/record?thing=${model.id}`}>
            Record
          </Button>
        </Box>
      </Only>
      {model.schema_name && <WhatDiffers model={model} />}
      {model.schema_name && model.alternative_what && (
        <Box sx={{ mt: 0.5 }}>
          {model.stands ? (
            <Box sx={{ color: tone.here, fontWeight: 600, fontSize: 13 }}>This alternative is in use</Box>
          ) : (
            <Only to="change the models">
              <Button variant="outlined" onClick={() => void run("stand")}>
                Let alternative {model.alternative_option} stand
              </Button>
            </Only>
          )}
        </Box>
      )}
    </Box>
  );
}

function Read({ model }: { model: ModelCard }) {
  return (
    <Box sx={{ fontSize: 13, display: "grid", gap: 0.4 }}>
      <Box sx={{ color: tone.soft }}>
        {model.schema_name} · {model.length_unit} · {counted(model.components, "component")}
      </Box>
      <Greyed to="change the models" said>
        <DisciplineChoice model={model} />
        <Alignment model={model} />
      </Greyed>
      {model.problems.map((problem) => (
        <Box key={problem.code} sx={{ color: tone.wrong, borderLeft: `3px solid ${tone.wrong}`, pl: 0.75 }}>
          {problem.text}
        </Box>
      ))}
    </Box>
  );
}

/** Which discipline the model is; what the file says can be overruled for the whole project. */
function DisciplineChoice({ model }: { model: ModelCard }) {
  const { federation, projectId } = useOpen();
  const { discipline } = useCorrections(projectId);
  const reason = model.discipline_set
    ? "set by hand"
    : model.discipline
      ? "by the file's name"
      : "by class and system";
  return (
    <Box sx={{ display: "flex", gap: 1, alignItems: "baseline" }}>
      <NativeSelect
        value={model.discipline_set || model.discipline ? (model.discipline ?? "") : ""}
        inputProps={{ "aria-label": `Discipline of ${model.name}` }}
        sx={{ fontSize: 13 }}
        onChange={(event) =>
          void withErrorNotice(() =>
            discipline.mutateAsync({ id: model.id, code: event.target.value || null }),
          )
        }
      >
        <option value="">as the file says</option>
        {federation.disciplines.map((d) => (
          <option key={d.code} value={d.code}>
            {d.code} {d.name}
          </option>
        ))}
      </NativeSelect>
      <Box sx={{ color: tone.soft, fontSize: 12 }}>{reason}</Box>
    </Box>
  );
}
