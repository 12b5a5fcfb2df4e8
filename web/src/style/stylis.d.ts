declare module "stylis" {
  import type { StylisPlugin } from "@emotion/cache";
  export const prefixer: StylisPlugin;
}
