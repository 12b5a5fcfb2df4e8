import { expect, test } from "vitest";
import { counted } from "./words";

test("one is one, all else is many, and thousands are told apart", () => {
  expect(counted(1, "model")).toBe("1 model");
  expect(counted(0, "model")).toBe("0 models");
  expect(counted(1224, "component")).toBe("1,224 components");
  expect(counted(2, "storey", "storeys")).toBe("2 storeys");
});
