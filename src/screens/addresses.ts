import { useEffect, useEffectEvent, useRef } from 'react';
import { groovesChanged } from '../store/grooves';
import { drawerTurned, sheetOpened } from '../store/look';
import { selectBeat, useApp, useAppStore, useDo } from '../store/store';
import { keep, useKept } from '../ui/useKept';
import { DRAWER_PAGES, FEEL_PAGES, GROOVE_PAGES, SHEETS, SONG_PAGES } from './pages';

const among = <T extends string>(all: readonly T[], asked: string): T | undefined =>
  all.find((one) => one === asked);

/** What the first of some pages is needs no word in the address. */
const beyondFirst = (all: readonly string[], page: string | null): string | null =>
  page === all[0] ? null : page;

/** Something of a screen that its address tells. */
interface Told {
  /** As it is; null where the plain address says enough. */
  value: string | null;
  /** An address asks for it. @returns whether there is such a thing */
  show: (asked: string) => boolean;
}

/** A route, as far as its address goes. */
interface Route {
  params: Readonly<Record<string, unknown>> | undefined;
  setParams: (params: Record<string, string | undefined>) => void;
}

/**
 * Keeps one part of the address and what it tells of the same: what an address asks for is shown when it is gone to; what a person
 * opens is written into the address, so that it can be shared and reloaded.
 */
const useTold = ({ params, setParams }: Route, name: string, { value, show }: Told): void => {
  const given = params?.[name];
  const asked = typeof given === 'string' ? given : null;
  const before = useRef<string | null>(null);
  const take = useEffectEvent(show);
  const write = useEffectEvent(setParams);
  useEffect(() => {
    const anew = asked !== before.current;
    before.current = asked;
    if (anew && asked !== null && asked !== value && take(asked)) return;
    if (asked === value) return;
    before.current = value;
    write({ [name]: value ?? undefined });
  }, [asked, value, name]);
};

/** The page that is kept under a name. */
const useKeptPage = (name: string, pages: readonly string[]): Told => {
  const [page] = useKept(name, pages[0]!);
  return {
    value: beyondFirst(pages, page),
    show: (asked) => {
      const one = among(pages, asked);
      if (one) keep(name, one);
      return one !== undefined;
    },
  };
};

/** Each has the parts of one screen's address. */
const ForFeel = (route: Route) => {
  useTold(route, 'page', useKeptPage('feel page', FEEL_PAGES));
  return null;
};

const ForSong = (route: Route) => {
  const store = useAppStore();
  useTold(route, 'page', useKeptPage('song page', SONG_PAGES));
  const [chosen] = useKept<string | null>('song section', null);
  const there = useApp((state) => selectBeat(state)?.song.order.some(({ id }) => id === chosen) ?? false);
  useTold(route, 'section', {
    value: there ? chosen : null,
    show: (asked) => {
      const beat = selectBeat(store.getState());
      // Before the beat is there, nobody knows.
      const may = !beat || beat.song.order.some(({ id }) => id === asked);
      if (may) keep('song section', asked);
      return may;
    },
  });
  return null;
};

const ForGrooves = (route: Route) => {
  const act = useDo();
  const chosen = useApp(({ grooves }) => grooves.chosen);
  useTold(route, 'page', useKeptPage('grooves page', GROOVE_PAGES));
  useTold(route, 'groove', {
    value: chosen,
    show: (asked) => {
      act(groovesChanged({ chosen: asked }));
      return true;
    },
  });
  return null;
};

const ForPattern = (route: Route) => {
  const act = useDo();
  const drawer = useApp(({ look }) => look.drawer);
  const sheet = useApp(({ look }) => look.sheet);
  useTold(route, 'drawer', {
    value: beyondFirst(DRAWER_PAGES, drawer),
    show: (asked) => {
      const one = among(DRAWER_PAGES, asked);
      if (one) act(drawerTurned(one));
      return one !== undefined;
    },
  });
  useTold(route, 'sheet', {
    value: sheet,
    show: (asked) => {
      const one = among(SHEETS, asked);
      if (one) act(sheetOpened(one));
      return one !== undefined;
    },
  });
  return null;
};

/** What addresses tell besides the screen, by the routes' names. */
export const ADDRESSED: Readonly<Record<string, (route: Route) => null>> = {
  index: ForPattern,
  feel: ForFeel,
  song: ForSong,
  grooves: ForGrooves,
};
