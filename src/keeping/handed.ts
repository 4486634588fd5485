/** Files that the system or another program hands over: they wait here for the screen that opens them. */

/** Files that came from elsewhere, and what is to be done once a person has said what becomes of them. */
export interface SharedBeat {
  files: File[];
  done: () => void;
}

let waiting: File[] = [];
let shared: SharedBeat | null = null;
const hearers = new Set<() => void>();
const tell = (): void => {
  for (const hear of hearers) hear();
};

/** A person opened them with the app. */
export const handOverFiles = (files: readonly File[]): void => {
  if (!files.length) return;
  waiting = [...waiting, ...files];
  tell();
};

/** Something sent them, a page perhaps that the person knows nothing of: they are asked about before anything is kept. */
export const askAboutFiles = (what: SharedBeat): void => {
  shared = what;
  tell();
};

/** What waits, once. */
export const takeHanded = (): File[] => {
  const files = waiting;
  waiting = [];
  return files;
};

/** What is to be asked about; null where nothing is, or it was answered. */
export const toBeAsked = (): SharedBeat | null => shared;

/** A person has said what becomes of it. */
export const answered = (): void => {
  shared?.done();
  shared = null;
  tell();
};

export const onHanded = (hear: () => void): (() => void) => {
  hearers.add(hear);
  return () => void hearers.delete(hear);
};
