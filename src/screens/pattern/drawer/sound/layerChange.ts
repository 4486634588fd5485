import { RANGES } from '../../../../../core/document/ranges';
import { instrument } from '../../../../../core/document/instruments';
import type { Layer } from '../../../../../core/document/schema';
import { clamp } from '../../../../../core/units';
import { kitToldOf } from '../../../../../core/synthesis/kitList';
import { words } from '../../../../words/sounds';

/** What a change of a layer is told with: moves of one drag share their gesture. */
export type ChangeLayer = (layer: Layer, gesture?: string) => void;

/** A layer with a field set, or without it: a document holds only what was set. */
export const withField = <K extends keyof Layer>(
  layer: Layer,
  key: K,
  value: Layer[K] | undefined,
): Layer => {
  const { [key]: _, ...rest } = layer;
  return (value === undefined ? rest : { ...rest, [key]: value }) as Layer;
};

/** What a layer is called: by its file, or by its drum. */
export const layerName = ({ source }: Layer): string =>
  'sample' in source
    ? source.sample.file
    : words.drumFrom(instrument(source.drum).name, kitToldOf(source.kit).name);

/** How much longer a layer lasts in its file than it is heard. */
const stretch = ({ tune = 0, fine = 0 }: Layer): number => 2 ** ((tune + fine / 100) / 12);

/** Where on the wave of its file a place of the layer, as it is heard, stands; and the other way round. */
export const onWave = (layer: Layer, end: number, heard: number): number =>
  layer.reverse ? end - heard * stretch(layer) : (layer.start ?? 0) + heard * stretch(layer);
export const asHeard = (layer: Layer, end: number, at: number): number =>
  Math.max(0, (layer.reverse ? end - at : at - (layer.start ?? 0)) / stretch(layer));

/** A corner of a layer's envelope: after how many ms of its sound, as it is heard. */
export interface Corner {
  key: 'attack' | 'hold' | 'decay';
  ms: number;
}

/** The corners of a layer's envelope, each where the part of that name ends; a hold without a decay holds nothing. */
export const corners = ({ attack = 0, hold = 0, decay }: Layer): Corner[] => {
  if (!attack && decay === undefined) return [];
  const rises: Corner = { key: 'attack', ms: attack };
  if (decay === undefined) return [rises];
  return [rises, { key: 'hold', ms: attack + hold }, { key: 'decay', ms: attack + hold + decay }];
};

const LONGEST: Record<Corner['key'], number> = { attack: 500, hold: 1000, decay: RANGES.envelope.most };
const SHORTEST = { attack: 0, hold: 0, decay: 10 };

/** A corner is moved: what comes before it stays as long as it is. */
export const withCorner = (layer: Layer, key: Corner['key'], ms: number): Layer => {
  const { attack = 0, hold = 0 } = layer;
  const before = { attack: 0, hold: attack, decay: attack + hold }[key];
  const length = Math.round(clamp(ms - before, SHORTEST[key], LONGEST[key]));
  return withField(layer, key, length || undefined);
};

/** How many places of the fall are drawn. */
const FALL = 12;

/** The envelope as it is drawn: where it is heard in ms, and how high it stands, 0 to 1. */
export const envelopeLine = (layer: Layer): [number, number][] => {
  const all = corners(layer);
  if (!all.length) return [];
  const [rises, holds, falls] = all;
  const line: [number, number][] = [
    [0, rises!.ms ? 0 : 1],
    [rises!.ms, 1],
  ];
  if (!holds || !falls) return line;
  // By 60 dB over the decay, evenly in decibels.
  for (let at = 0; at <= FALL; at++)
    line.push([holds.ms + ((falls.ms - holds.ms) * at) / FALL, 10 ** ((-3 * at) / FALL)]);
  return line;
};
