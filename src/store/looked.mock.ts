/** For tests: what the screens share, in one piece, and a way to bring it about by the events that bring it about in the app. */
import type { ThunkAction, UnknownAction } from '@reduxjs/toolkit';
import {
  againstChosen,
  bChosen,
  blindHeard,
  blindTestBegun,
  blindTestLeft,
  compared,
  comparingEnded,
  type ComparingState,
} from './comparing';
import { feelCopied, hitsCopied, patternCopied, type CopiedState } from './copied';
import { exportHowSet, type ExportingState } from './exporting';
import {
  cursorMoved,
  editedTogether,
  heightsShown,
  hitsSelected,
  laneOpened,
  patternShown,
  scopeChosen,
  trialBegun,
  trialEnded,
  type FocusState,
} from './focus';
import { eraserToggled, playInSet, type InputState } from './input';
import { drawerTurned, sheetClosed, sheetOpened, type LookState } from './look';
import { settingsRead } from './settings';
import type { RootState } from './store';
import {
  auditionEnded,
  auditionTurned,
  countInToggled,
  leaderTold,
  playBegan,
  playEnded,
  practiceSet,
  routesAtSet,
  songTried,
  type TransportState,
} from './transport';

export type Looked = FocusState &
  CopiedState &
  LookState &
  TransportState &
  InputState &
  ComparingState &
  ExportingState;

export const lookedAt = ({
  focus,
  copied,
  look,
  transport,
  input,
  comparing,
  exporting,
}: Omit<RootState, 'doc'>): Looked => ({
  ...focus,
  ...copied,
  ...look,
  ...transport,
  ...input,
  ...comparing,
  ...exporting,
});

/** The events that lead to each, in the order in which they do not undo one another. */
const EVENTS: { [Key in keyof Looked]?: (to: Looked[Key], now: Looked) => UnknownAction | null } = {
  patternId: (to) => patternShown(to),
  openLane: (to) => laneOpened(to),
  selection: (to, now) => hitsSelected({ spots: to, cursor: now.cursor, pasteAt: now.pasteAt }),
  box: (to, now) => hitsSelected({ spots: now.selection, box: to }),
  cursor: (to) => cursorMoved({ cursor: to! }),
  pasteAt: (to, now) => cursorMoved({ cursor: now.cursor!, pasteAt: to! }),
  scope: (to) => scopeChosen(to),
  also: (to) => editedTogether(to),
  trial: (to) => (to ? trialBegun(to) : trialEnded()),
  heights: (to) => heightsShown(to),
  clip: (to) => hitsCopied(to!),
  patternClip: (to) => patternCopied(to!),
  feelClip: (to) => feelCopied(to!),
  drawer: (to) => drawerTurned(to),
  sheet: (to) => (to ? sheetOpened(to) : sheetClosed()),
  song: (to) => songTried(to),
  playing: (to, now) => (to ? playBegan(now.song.playing) : playEnded()),
  audition: (to, now) => (to ? auditionTurned(to) : auditionEnded(now.playing)),
  practice: (to) => practiceSet(to),
  leader: (to) => leaderTold(to),
  countIn: (to, now) => (to === now.countIn ? null : countInToggled()),
  routesAt: (to) => routesAtSet(to),
  eraser: (to, now) => (to === now.eraser ? null : eraserToggled()),
  playIn: (to) => playInSet(to),
  blindTest: (to) => (to ? blindTestBegun(to) : blindTestLeft()),
  blind: (to, now) => (to ? blindHeard(now.compare ?? 'self') : comparingEnded()),
  compare: (to) => compared(to),
  against: (to) => againstChosen(to),
  b: (to) => bChosen(to),
  exportHow: (to) => exportHowSet(to!),
};

/** Brings some of it about. What is a setting is read as one. */
export const looked =
  (change: Partial<Looked>): ThunkAction<void, RootState, unknown, UnknownAction> =>
  (dispatch, getState) => {
    dispatch(settingsRead(change));
    const { scope } = getState().focus;
    for (const key of Object.keys(EVENTS) as (keyof Looked)[]) {
      if (!(key in change)) continue;
      const event = EVENTS[key] as (to: unknown, now: Looked) => UnknownAction | null;
      const action = event(change[key], lookedAt(getState()));
      if (action) dispatch(action);
    }
    // Hits that are selected are what the controls are for; here only where that is said.
    if ('selection' in change && !('scope' in change)) dispatch(scopeChosen(scope));
  };
