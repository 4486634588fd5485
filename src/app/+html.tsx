import type { ReactNode } from 'react';
import { DEMO_BEATS } from '../../demo/beats';
import { beatOpened } from '../store/doc';
import { patternShown } from '../store/focus';
import { createStore } from '../store/store';
import { earlyOf } from '../strings/early';
import { DYES, dyesSheet } from '../ui/tokens';
import { drawEarly, EARLY_KEY } from '../web/early';
import { startAgain, TRIES_KEY } from '../web/startAgain';
import { words } from '../words/frame';

/** The theme chosen before, put on before anything is painted. */
const THEME = `try{var t=localStorage.getItem('ruddik-theme');if(t)document.documentElement.setAttribute('data-theme',t)}catch(e){}`;

/** What a first visit sees before the app is there. */
const firstSight = (): string => {
  const store = createStore();
  const beat = DEMO_BEATS[0]!;
  store.dispatch(beatOpened({ beat }));
  store.dispatch(patternShown(beat.patterns[0]!.id));
  return JSON.stringify(earlyOf(store.getState())).replace(/</g, '\\u003c');
};
const EARLY = `(${drawEarly.toString()})(${firstSight()},${JSON.stringify(EARLY_KEY)})`;

/** What the app begins with; everything else it fetches by itself. */
const PIECES = '/_expo/static/js/web/(__expo-metro-runtime|__common|start)-';
const given = [TRIES_KEY, PIECES, words.ruddikCouldNotBeFetched, words.tryIt].map((one) =>
  JSON.stringify(one),
);
const START_AGAIN = `(${startAgain.toString()})(${given.join(',')})`;

export default function Html({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1, viewport-fit=cover" />
        <title>{words.ruddik}</title>
        <meta name="description" content="Drum patterns that groove: see every hit where it sounds." />
        <link rel="manifest" href="/manifest.webmanifest" />
        <link rel="apple-touch-icon" href="/icons/ruddik-192.png" />
        <meta name="theme-color" content={DYES.ground.night} media="(prefers-color-scheme: dark)" />
        <meta name="theme-color" content={DYES.ground.day} media="(prefers-color-scheme: light)" />
        <style dangerouslySetInnerHTML={{ __html: dyesSheet() }} />
        <script dangerouslySetInnerHTML={{ __html: THEME }} />
        <script dangerouslySetInnerHTML={{ __html: START_AGAIN }} />
      </head>
      <body>
        {children}
        <script dangerouslySetInnerHTML={{ __html: EARLY }} />
      </body>
    </html>
  );
}
