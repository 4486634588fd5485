import { Figure } from '../../../../ui/Figure';
import { bounds, heldToRange, RANGES } from '../../../../../core/document/ranges';
import type { Layer } from '../../../../../core/document/schema';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Disclosure } from '../../../../ui/Disclosure';
import { hertzText, HERTZ, PAN, panText, PERCENT, type FigureWritten } from '../../../../ui/figures';
import { Chips } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { useFileField } from '../../../../web/fileField';
import { words } from '../../../../words/sounds';
import { AUDIO_FILES, takeSounds } from '../../takeSounds';
import { layerName, withField, type ChangeLayer } from './layerChange';
import { LayerWave } from './LayerWave';

interface LayerProps {
  layer: Layer;
  at: number;
  only: boolean;
  onChange: ChangeLayer;
  onRemove: () => void;
}

const NO_FILTER = 'none';
type Pass = NonNullable<Layer['filter']>['pass'] | typeof NO_FILTER;
const PASSES: Pass[] = [NO_FILTER, 'low', 'high', 'band'];
const FIRST_FILTER: NonNullable<Layer['filter']> = { pass: 'low', hertz: 4000, slope: 12, follow: 0 };

type Figured = 'level' | 'pan' | 'tune' | 'fine' | 'attack' | 'hold' | 'decay' | 'drive' | 'gate';

/** The figures of a layer in their order: how far each goes, what it is where it is not set, and how it is told. */
const FIGURES: {
  key: Figured;
  least: number;
  most: number;
  step: number;
  idle: number;
  told: (value: number) => string;
  written?: FigureWritten;
  /** What is said in the place of the figure where it is not set. */
  unset?: string;
}[] = [
  { key: 'level', ...bounds(RANGES.level), step: 0.01, idle: 1, told: words.percent, written: PERCENT },
  { key: 'pan', ...bounds(RANGES.pan), step: 0.01, idle: 0, told: panText, written: PAN },
  { key: 'tune', ...bounds(RANGES.tune), step: 1, idle: 0, told: words.semitones },
  { key: 'fine', ...bounds(RANGES.fine), step: 1, idle: 0, told: words.cents },
  { key: 'attack', least: 0, most: 500, step: 1, idle: 0, told: words.ms },
  { key: 'hold', least: 0, most: 1000, step: 5, idle: 0, told: words.ms },
  {
    key: 'decay',
    least: 10,
    most: RANGES.envelope.most,
    step: 10,
    idle: RANGES.envelope.most,
    told: words.ms,
    unset: words.asItRings,
  },
  {
    key: 'drive',
    ...bounds(RANGES.drive),
    step: 0.1,
    idle: 0,
    told: (value) => value.toFixed(1),
    unset: words.none,
  },
  {
    key: 'gate',
    ...bounds(RANGES.gate),
    step: 1,
    idle: RANGES.gate.least,
    told: words.decibels,
    unset: words.none,
  },
];

interface PartProps {
  layer: Layer;
  name: string;
  onChange: ChangeLayer;
}

const Figures = ({ layer, name, onChange }: PartProps) => (
  <>
    {FIGURES.map(({ key, idle, told, unset, ...range }) => {
      const value = layer[key];
      return (
        <Range
          key={key}
          {...range}
          label={words.ofLayer(words[key], name)}
          short={words[key]}
          value={value ?? idle}
          shown={value === undefined && unset ? unset : told(value ?? idle)}
          onChange={(to, gesture) => onChange(withField(layer, key, to === idle ? undefined : to), gesture)}
        />
      );
    })}
  </>
);

/** The velocities that a layer is for. */
const Velocities = ({ layer, name, onChange }: PartProps) => (
  <>
    <Figure
      of="velocity"
      label={words.softOf(name)}
      short={words.soft}
      value={layer.low}
      onChange={(low, gesture) => onChange({ ...layer, low, high: Math.max(low, layer.high) }, gesture)}
    />
    <Figure
      of="velocity"
      label={words.hardOf(name)}
      short={words.hard}
      value={layer.high}
      onChange={(high, gesture) => onChange({ ...layer, high, low: Math.min(high, layer.low) }, gesture)}
    />
  </>
);

const Filter = ({ layer, name, onChange }: PartProps) => {
  const { filter } = layer;
  return (
    <>
      <Choice<Pass>
        label={words.filterOf(name)}
        short={words.filter}
        value={filter?.pass ?? NO_FILTER}
        options={PASSES.map((value) => ({ value, name: words.pass[value] }))}
        onChange={(pass) =>
          onChange(
            withField(layer, 'filter', pass === NO_FILTER ? undefined : { ...FIRST_FILTER, ...filter, pass }),
          )
        }
      />
      {filter ? (
        <>
          <Range
            label={words.ofLayer(words.cutoff, name)}
            short={words.cutoff}
            value={Math.log2(filter.hertz)}
            least={Math.log2(RANGES.cutoff.least)}
            most={Math.log2(RANGES.cutoff.most)}
            step={0.02}
            written={HERTZ}
            shown={hertzText(filter.hertz)}
            onChange={(value, gesture) =>
              onChange(
                {
                  ...layer,
                  filter: { ...filter, hertz: heldToRange(RANGES.cutoff, Math.round(2 ** value)) },
                },
                gesture,
              )
            }
          />
          <Figure
            of="follow"
            label={words.ofLayer(words.follows, name)}
            short={words.follows}
            value={filter.follow}
            shown={words.octaves(filter.follow)}
            onChange={(follow, gesture) => onChange({ ...layer, filter: { ...filter, follow } }, gesture)}
          />
          <Chips>
            <Chip
              pressed={filter.slope === 24}
              onPress={() =>
                onChange({ ...layer, filter: { ...filter, slope: filter.slope === 24 ? 12 : 24 } })
              }
            >
              {words.steep}
            </Chip>
          </Chips>
        </>
      ) : null}
    </>
  );
};

/** All that shapes one layer. */
export const LayerPart = ({ layer, at, only, onChange, onRemove }: LayerProps) => {
  const name = layerName(layer);
  const part = { layer, name, onChange };
  const { field, choose } = useFileField({
    label: words.ofLayer(words.replace, name),
    accept: AUDIO_FILES,
    // Where the old file began, ended and had its attack means nothing in another one.
    onFiles: (files) =>
      void takeSounds(files).then(([sample]) => {
        const { start: _s, end: _e, lands: _l, ...rest } = layer;
        if (sample) onChange({ ...rest, source: { sample } });
      }),
  });
  return (
    <Disclosure title={words.layerOf(at + 1, name)} open={only}>
      {field}
      <LayerWave {...part} />
      <Chips>
        <Chip
          pressed={layer.reverse === true}
          onPress={() => onChange(withField(layer, 'reverse', layer.reverse ? undefined : true))}
        >
          {words.reverse}
        </Chip>
        <Chip onPress={choose}>{words.replace}</Chip>
        {only ? null : <Chip onPress={onRemove}>{words.removeLayer}</Chip>}
      </Chips>
      {only ? null : <Velocities {...part} />}
      <Figures {...part} />
      <Filter {...part} />
    </Disclosure>
  );
};
