import { perProject } from "./perProject";

/** Whether the bin of the project is open. */
export const useBinShown = perProject<{ open: boolean }>(() => ({ open: false }));

/** Open the bin, with what was deleted of the project. */
export const openBin = () => useBinShown.setState({ open: true });
