import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { KitId } from '../../core/document/schema';
import type { DrumMap } from '../../core/document/drumMapSchema';
import type { Filters, Sort } from '../../core/groove/catalogue';
import { NO_FAVOURITES, type Favourites } from '../../core/groove/favourites';
import { words } from '../words/state';

/** How grooves are looked through and heard. Kept from one visit to the next; not part of a beat. */
export interface GroovesState {
  view: 'list' | 'folders' | 'keepers';
  /** The folder that is open. */
  path: string[];
  query: string;
  filters: Filters;
  sort: Sort;
  down: boolean;
  /** The groove that was chosen last. */
  chosen: string | null;
  keepers: Favourites;
  /** Sounds as soon as it is chosen. */
  atOnce: boolean;
  after: 'stop' | 'repeat' | 'next';
  tempo: 'groove' | 'beat' | 'hand';
  hand: number;
  /** Along with the beat. */
  inTime: boolean;
  /** The id of one, or “beat” for that of the beat. */
  kit: KitId;
  /** Lanes of the beat that are not heard meanwhile, by their names: beats share names, not ids. */
  silenced: string[];
  /** Maps that were made or brought in. */
  maps: DrumMap[];
  /** The map that files are read with. */
  readWith: string;
}

export const FIRST_GROOVES: GroovesState = {
  view: 'list',
  path: [],
  query: '',
  filters: {},
  sort: 'name',
  down: false,
  chosen: null,
  keepers: NO_FAVOURITES,
  atOnce: true,
  after: 'repeat',
  tempo: 'beat',
  hand: 100,
  inTime: false,
  kit: 'beat',
  silenced: [],
  maps: [],
  readWith: words.generalMidi,
};

const isRecord = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const isMap = (value: unknown): boolean =>
  isRecord(value) && typeof value['name'] === 'string' && Array.isArray(value['notes']);

const isKeepers = (value: unknown): boolean =>
  isRecord(value) &&
  Array.isArray(value['grooves']) &&
  value['grooves'].every((one) => isRecord(one) && typeof one['id'] === 'string') &&
  Array.isArray(value['folders']) &&
  value['folders'].every(Array.isArray);

/** Whether a value is of the kind that a first start has in its place. */
const isLike = (key: keyof GroovesState, value: unknown): boolean => {
  const first = FIRST_GROOVES[key];
  if (key === 'chosen') return value === null || typeof value === 'string';
  if (key === 'keepers') return isKeepers(value);
  if (key === 'maps') return Array.isArray(value) && value.every(isMap);
  if (Array.isArray(first)) return Array.isArray(value) && value.every((one) => typeof one === 'string');
  if (key === 'filters')
    return isRecord(value) && Object.values(value).every((one) => typeof one === 'string');
  return typeof value === typeof first;
};

/** Of what was kept, what fits: all else is as at a first start. @example fittingGrooves({ hand: 'x' }) // {} */
export const fittingGrooves = (kept: unknown): Partial<GroovesState> =>
  isRecord(kept)
    ? Object.fromEntries(
        Object.entries(kept).filter(
          ([key, value]) => Object.hasOwn(FIRST_GROOVES, key) && isLike(key as keyof GroovesState, value),
        ),
      )
    : {};

const grooves = createSlice({
  name: 'grooves',
  initialState: FIRST_GROOVES,
  reducers: {
    groovesChanged: (state, { payload }: PayloadAction<Partial<GroovesState>>) => ({ ...state, ...payload }),
  },
});

export const { groovesChanged } = grooves.actions;
export const groovesReducer = grooves.reducer;
