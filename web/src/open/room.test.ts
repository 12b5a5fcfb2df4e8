import { expect, test } from "vitest";
import { bytesSaid } from "./bytes";
import { type Room, whyNoRoom } from "./room";

const MB = 2 ** 20;
const room = (storage_bytes: number): Room => ({
  limits: { file_mb: 10, unpacked_mb: 40, storage_mb: 100, components: 1000, tasks: 3 },
  storage_bytes,
  components: 0,
  tasks: 0,
});

test("a file that fits is not refused, to the last byte", () => {
  expect(whyNoRoom("A.ifc", 10 * MB, 0, room(90 * MB))).toBeNull();
  expect(whyNoRoom("A.ifc", 10 * MB, 0, room(90 * MB + 1))).toContain(
    "this project holds 90 MB of at most 100 MB",
  );
});

test("a file that is too large says so before it is sent, whatever room there is", () => {
  expect(whyNoRoom("A.ifc", 10 * MB + 1, 0, room(0))).toMatch(/^A\.ifc has 10 MB; a file may have 10 MB\./);
});

test("files on their way count", () => {
  expect(whyNoRoom("B.ifc", 9 * MB, 0, room(85 * MB))).toBeNull();
  expect(whyNoRoom("B.ifc", 9 * MB, 8 * MB, room(85 * MB))).toContain("Remove what nobody needs");
});

test.each([
  [0, "0 kB"],
  [1500, "1 kB"],
  [3.4 * MB, "3.4 MB"],
  [512 * MB, "512 MB"],
  [1536 * MB, "1.5 GB"],
  [50_000 * MB, "49 GB"],
])("%s bytes are said as %s", (bytes, said) => {
  expect(bytesSaid(bytes)).toBe(said);
});
