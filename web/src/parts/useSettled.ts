import { useEffect, useState } from "react";

/** A value once it has stood for so many milliseconds: what follows somebody's typing waits for a pause in it. */
export function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}
