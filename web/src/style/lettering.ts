import createCache, { type StylisElement, type StylisPlugin } from "@emotion/cache";
import { prefixer } from "stylis";

/**
 * How large letters are against what the page says: for the whole page, and for what lies in a pane that is enlarged with
 * all that it holds.
 */
const PAGE = "--lettering";
const LETTERS = "--letters";

/** Of a pane beside the stage: it is enlarged with all that it holds. */
export const ENLARGED = { zoom: `var(${PAGE}, 1)`, [LETTERS]: 1 } as const;

/** How many times something is enlarged: so many pixels of the window one of its own takes. */
export const enlarged = (element: Element) => element.currentCSSZoom ?? 1;

/** A length of the page that grows with the letters. */
export const withLetters = (px: number) => `calc(${px}px * var(${PAGE}, 1))`;

/** The size of letters drawn in a picture of the page. */
export const letters = (px: number) => `calc(${px}px * var(${LETTERS}, 1))`;

const PLAIN_SIZE = /^[\d.]+px$/;

/** Writes each size of letters so that it grows with what people choose. */
export const growing: StylisPlugin = (element: StylisElement) => {
  if (element.type !== "decl" || element.props !== "font-size" || typeof element.children !== "string")
    return;
  if (PLAIN_SIZE.test(element.children))
    element.return = `font-size:calc(${element.children} * var(${LETTERS}, 1));`;
};

/** The page's styles, whose letters grow. */
export const styles = createCache({ key: "css", prepend: true, stylisPlugins: [growing, prefixer] });

/** Let the page's letters be so large. */
export function setLettering(share: number): void {
  const { style } = document.documentElement;
  style.setProperty(PAGE, String(share));
  style.setProperty(LETTERS, String(share));
}
