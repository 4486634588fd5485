import { instrument } from '../../../../core/document/instruments';
import type { Layer } from '../../../../core/document/schema';
import { kitToldOf } from '../../../../core/sound/kitList';
import { words } from '../../../words/sounds';

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
