import { useEffect } from 'react';
import { store } from '../../keeping/session';
import { useApp } from '../../store/store';
import { earlyOf } from '../../strings/early';
import { replayEarly } from '../../strings/earlyTaps';
import { keepEarly, tallShown } from '../../web/early';
import { onPage } from '../../web/listen';

/** The copy is made when nothing has changed for so long. */
const REST_MS = 700;

/** Keeps a small copy of what is shown, for the next start. */
export const useEarly = (): void => {
  const beatId = useApp((state) => state.doc.beat?.id);
  useEffect(() => {
    if (beatId) replayEarly();
  }, [beatId]);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const seen = () => {
      const { doc, focus, look } = store.getState();
      return [doc.beat, focus.patternId, look.zoom, look.mixOpen];
    };
    let kept: unknown[] = [];
    const keep = () => {
      clearTimeout(timer);
      const now = seen();
      if (now.every((one, at) => one === kept[at])) return;
      kept = now;
      const copy = earlyOf(store.getState(), tallShown());
      if (copy) keepEarly(copy);
    };
    const stop = store.subscribe(() => {
      clearTimeout(timer);
      timer = setTimeout(keep, REST_MS);
    });
    const end = onPage(keep);
    return () => {
      clearTimeout(timer);
      stop();
      end();
    };
  }, []);
};
