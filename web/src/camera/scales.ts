/** Scales that drawings of buildings are made at. */
export const SCALES = [20, 50, 100, 200] as const;
