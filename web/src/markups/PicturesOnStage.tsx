import { useEffect } from "react";
import { Vector3 } from "three";
import { blobAddress } from "../api/client";
import { onStage } from "../open/origin";
import { useOpen } from "../open/useStage";
import { useViewState } from "../open/visibility/viewState";
import { HungPictures } from "../stage/layers/hungPictures";

/** Pictures that another program put into the view, where they stand. */
export function PicturesOnStage() {
  const { stage, federation } = useOpen();
  const pictures = useViewState((s) => s.pictures);
  useEffect(
    () =>
      stage()
        ?.layer(HungPictures)
        .show(
          pictures.map(({ sha256, at_m, normal, up, height_m }) => ({
            address: blobAddress(federation.id, sha256),
            at: onStage(at_m, federation.origin_m),
            normal: new Vector3().fromArray(normal),
            up: new Vector3().fromArray(up),
            heightM: height_m,
          })),
        ),
    [stage, pictures, federation],
  );
  return null;
}
