import { nanoid } from '@reduxjs/toolkit';
import type { Maker } from '../../../../../core/document/choices';
import type { Meter } from '../../../../../core/document/meter';
import type { Lane, Take } from '../../../../../core/document/schema';
import { beatEdited } from '../../../../store/doc';
import type { Made, MadeSettings } from '../../../../../core/make/makers';
import { editShown } from '../../../../store/editing';
import { selectPattern, useApp, type RootState, type Store } from '../../../../store/store';
import { noticed } from '../../../../store/slices';
import { laneOpened } from '../../../../store/focus';
import { keep, useKept } from '../../../../ui/useKept';
import { words } from '../../../../words/make';
import { attempt } from '../../../../store/trial';
import { edit } from '../edit';

/** What the makers of this page share: how they give, their seed, and how a take is opened again. */

export const newSeed = (): number => crypto.getRandomValues(new Uint32Array(1))[0]!;

export type MakerPage = 'ring' | 'bands' | 'chords' | 'beat' | 'rudiment' | 'chance';

export const MAKER_NAMES: Record<Exclude<MakerPage, 'chance'>, string> = {
  ring: words.ring,
  bands: words.bands,
  chords: words.chords,
  beat: words.wholeBeat,
  rudiment: words.rudiment,
};

/** Whether a turn of a control is made at once, or only tried. */
export const useLive = () => useKept('make live', true);

/** Where it is kept whether bands only shape the hits that are there. */
export const ONLY_SHAPE = 'make bands only shape';

/** More hits than this are told and not made. */
const MOST_HITS = 10_000;

interface Given {
  maker: Extract<Maker, Exclude<MakerPage, 'chance'>>;
  parts: Made;
  settings: object;
  seed: number;
  /** What a whole beat needs of the beat: lanes that are not there yet, another time signature. */
  needs?: { lanes: Lane[]; meter?: Meter };
}

/** The turn of a control that was made last, and the take that came of it. */
let turned = { gesture: '', id: '' };

/**
 * Puts what a maker gives into its lanes: at once, a whole turn of a control being one step of the history, or to be tried.
 *
 * @param gesture the turn of the control that it belongs to
 */
export const give = (
  store: Store,
  { maker, parts, settings, seed, needs }: Given,
  live: boolean,
  gesture?: string,
): void => {
  const many = Object.values(parts).reduce((sum, { hits }) => sum + hits.length, 0);
  if (many > MOST_HITS) {
    store.dispatch(noticed({ text: words.tooMany(many), subject: 'maker' }));
    return;
  }
  const how = MAKER_NAMES[maker];
  // All moves of one turn make one take.
  const id = gesture !== undefined && gesture === turned.gesture ? turned.id : nanoid();
  if (gesture !== undefined) turned = { gesture, id };
  const args = { parts, how, made: { maker, settings: settings as MadeSettings }, seed, id };
  const beat = needs && {
    edit: 'makeBeat' as const,
    args: { ...args, ...needs, patternId: selectPattern(store.getState())!.id },
  };
  if (beat && live)
    store.dispatch(beatEdited({ edit: beat, ...(gesture !== undefined && { gesture, anew: true }) }));
  else if (beat) attempt(store, how, { kind: 'beat', edit: beat });
  else if (live) editShown(store, { edit: 'make', args }, gesture, gesture !== undefined);
  else attempt(store, how, { kind: 'pattern', edit: { edit: 'make', args } });
};

/** The take that is played, where a maker made it for a lane, or for all. */
const selectMade = (state: RootState, maker: MakerPage, laneId: string | null): Take | undefined => {
  const pattern = selectPattern(state);
  const take = pattern?.take ? pattern.takes?.find(({ id }) => id === pattern.take) : undefined;
  const mine = take?.made?.maker === maker && (laneId === null || take.lanes?.[0] === laneId);
  return mine ? take : undefined;
};

/**
 * A maker's settings and seed: those of the take that is played, where it made that, so that an undo turns its controls back
 * too; otherwise those that were set last.
 *
 * @param laneId the lane that it makes for; null is all of them
 */
export const useMaker = <S extends object>(maker: MakerPage, first: S, laneId: string | null) => {
  const [kept, setSettings] = useKept<S>(`make ${maker}`, first);
  const [keptSeed, setSeed] = useKept<number>(`make ${maker} seed`, 1);
  const [live] = useLive();
  const take = useApp((state) => selectMade(state, maker, laneId));
  const played = live && take ? { settings: take.made!.settings as unknown as S, seed: take.seed } : null;
  return {
    settings: played ? { ...first, ...played.settings } : kept,
    seed: played?.seed ?? keptSeed,
    setSettings,
    /** Draws with another seed; what is made of that is told by who makes it. */
    drawAgain: (make: (seed: number) => void): void => {
      const next = newSeed();
      setSeed(next);
      make(next);
    },
  };
};

/** Opens a take again: its maker with the settings that it was made by, for its lane. */
export const reopen = (store: Store, { id, made, seed, lanes }: Take): void => {
  if (!made) return;
  // It is what is played from now on: its controls go on from it.
  if (selectPattern(store.getState())?.take !== id) edit('recall', { takeId: id, id: nanoid() });
  keep(`make ${made.maker}`, made.settings);
  keep(`make ${made.maker} seed`, seed);
  keep('maker', made.maker);
  if (made.maker === 'bands') keep(ONLY_SHAPE, made.settings['shape'] === true);
  const [lane] = lanes ?? [];
  if (lane && made.maker !== 'beat') store.dispatch(laneOpened(lane));
};
