/** The file name of a slice. @example sliceName(0) // "slice 01.wav" */
export const sliceName = (at: number): string => `slice ${String(at + 1).padStart(2, '0')}.wav`;
