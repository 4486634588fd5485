/** Files that the system or another program hands over: they wait here for the screen that opens them. */

let waiting: File[] = [];
const hearers = new Set<() => void>();

export const handOverFiles = (files: readonly File[]): void => {
  if (!files.length) return;
  waiting = [...waiting, ...files];
  for (const hear of hearers) hear();
};

/** What waits, once. */
export const takeHanded = (): File[] => {
  const files = waiting;
  waiting = [];
  return files;
};

export const onHanded = (hear: () => void): (() => void) => {
  hearers.add(hear);
  return () => void hearers.delete(hear);
};
