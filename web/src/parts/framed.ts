import { tone } from "../theme";

/** The paper of a panel that lies over the page. */
export const FRAMED = { border: `1px solid ${tone.ink}`, boxShadow: "3px 3px 0 rgba(30,43,54,.15)" } as const;
