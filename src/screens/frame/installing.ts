import { router } from 'expo-router';
import { offer } from '../../store/offers';
import { persistence, store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { takeHandedOver } from '../../web/handedOver';
import { keepInstalled, reloadPage, type Workers } from '../../web/installed';
import { words } from '../../words/frame';

const tell = (text: string, label: string, does: () => void): void =>
  void store.dispatch(noticed({ text, subject: 'app', lasting: true, action: { label, does: offer(does) } }));

/** Keeps the app in the browser, and takes files that are handed to it: they are opened among the beats. */
export const install = async (): Promise<void> => {
  void takeHandedOver(
    () => router.push('/beats'),
    (why) =>
      void store.dispatch(
        noticed({
          text: why === 'too-much' ? words.tooMuchWasSent : words.sentNotRead,
          tone: 'danger',
          lasting: true,
        }),
      ),
  );
  if (!('serviceWorker' in navigator)) return;
  await keepInstalled({
    workers: navigator.serviceWorker as unknown as Workers,
    onReady: (use) => tell(words.newerReady, words.useIt, use),
    onElsewhere: (reload) => tell(words.newerElsewhere, words.reload, reload),
    flush: () => persistence.flush(),
    reload: reloadPage,
  }).catch(() => undefined);
};
