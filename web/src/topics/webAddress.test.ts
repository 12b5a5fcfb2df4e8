import { expect, test } from "vitest";
import { webAddress } from "./webAddress";

test("only pages of the web are opened by a click, and their host is told", () => {
  expect(webAddress("https://example.org/plan.pdf")).toEqual({
    href: "https://example.org/plan.pdf",
    host: "example.org",
  });
  expect(webAddress("HTTP://example.org:8080")?.host).toBe("example.org:8080");
  for (const other of [
    "javascript:alert(1)",
    " java\nscript:alert(1)",
    "data:text/html,x",
    "file:///etc",
    "\\\\share\\x",
    "plan.pdf",
    "",
  ])
    expect(webAddress(other), other).toBeNull();
});
