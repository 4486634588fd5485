import { askAboutFiles, handOverFiles } from '../keeping/handed';

/** What the browser's queue of launches gives; it is known to few type libraries yet. */
interface LaunchQueue {
  setConsumer: (take: (launch: { files?: { getFile: () => Promise<File> }[] }) => void) => void;
}

const SHARED = 'ruddik-shared';

const sentTo = (search: string): string | null => new URLSearchParams(search).get('shared');

/** Whether the page was opened to show what was sent to the app. */
export const wasSent = (): boolean => sentTo(window.location.search) !== null;

/** Files that were shared with the app lie in a store until a person has said what becomes of them. */
const sharedFiles = async (): Promise<File[]> => {
  const store = await caches.open(SHARED);
  const files: File[] = [];
  for (const request of await store.keys()) {
    const answer = await store.match(request);
    if (!answer) continue;
    const name = decodeURIComponent(answer.headers.get('X-Name') ?? 'shared');
    files.push(new File([await answer.blob()], name));
  }
  return files;
};

/**
 * Takes what the installed app was opened with, and what was shared with it.
 *
 * @param show goes to where files are opened
 * @param refused hears why something that was sent was not taken
 */
export const takeHandedOver = async (
  show: () => void,
  refused: (why: 'too-much' | 'not-read') => void,
): Promise<void> => {
  const sent = sentTo(window.location.search);
  if (sent === 'too-much' || sent === 'not-read') refused(sent);
  const { launchQueue } = window as unknown as { launchQueue?: LaunchQueue };
  launchQueue?.setConsumer(({ files = [] }) => {
    if (!files.length) return;
    void Promise.all(files.map((file) => file.getFile())).then((taken) => {
      handOverFiles(taken);
      show();
    });
  });
  if (!('caches' in window)) return;
  const files = await sharedFiles().catch(() => []);
  if (!files.length) return;
  askAboutFiles({ files, done: () => void caches.delete(SHARED).catch(() => undefined) });
  show();
};
