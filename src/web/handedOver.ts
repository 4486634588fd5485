import { handOverFiles } from '../state/handed';

/** What the browser's queue of launches gives; it is known to few type libraries yet. */
interface LaunchQueue {
  setConsumer: (take: (launch: { files?: { getFile: () => Promise<File> }[] }) => void) => void;
}

const SHARED = 'ruddik-shared';

/** Files that were shared with the app lie in a store until its page is there. */
const takeShared = async (): Promise<File[]> => {
  const store = await caches.open(SHARED);
  const files: File[] = [];
  for (const request of await store.keys()) {
    const answer = await store.match(request);
    if (answer) {
      const name = decodeURIComponent(answer.headers.get('X-Name') ?? 'shared');
      files.push(new File([await answer.blob()], name));
    }
    await store.delete(request);
  }
  return files;
};

/**
 * Takes what the installed app was opened with, and what was shared with it.
 *
 * @param show goes to where files are opened
 */
export const takeHandedOver = async (show: () => void): Promise<void> => {
  const { launchQueue } = window as unknown as { launchQueue?: LaunchQueue };
  launchQueue?.setConsumer(({ files = [] }) => {
    if (!files.length) return;
    void Promise.all(files.map((file) => file.getFile())).then((taken) => {
      handOverFiles(taken);
      show();
    });
  });
  if (!('caches' in window)) return;
  const shared = await takeShared().catch(() => []);
  if (!shared.length) return;
  handOverFiles(shared);
  show();
};
