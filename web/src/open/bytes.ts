import { grouped } from "../api/locale";

export const MB = 2 ** 20;

/** A size as people say it: "3.4 MB", "49 GB". */
export function bytesSaid(bytes: number): string {
  if (bytes < MB) return `${Math.floor(bytes / 1024)} kB`;
  const [size, unit] = bytes < 2 ** 30 ? [bytes / MB, "MB"] : [bytes / 2 ** 30, "GB"];
  return `${size < 10 ? Math.round(size * 10) / 10 : grouped(Math.round(size))} ${unit}`;
}
