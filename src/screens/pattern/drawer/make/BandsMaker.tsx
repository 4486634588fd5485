import { Figure } from '../../../../ui/Figure';
import { GRIDS, type Grid } from '../../../../../core/document/grid';
import { listed } from '../../../../../core/document/text';
import { noteName } from '../../../../../core/document/noteName';
import type { Lane } from '../../../../../core/document/schema';
import {
  bandAt,
  BAND_OF,
  BAND_SHAPES,
  shapedBand,
  type BandOf,
  type BandShape,
} from '../../../../../core/make/bands';
import {
  partBandOf,
  BANDS_DEFAULTS,
  bandsParts,
  pointsOf,
  type BandsSettings,
} from '../../../../../core/make/bandParts';
import { scaleNames } from '../../../../../core/make/scales';
import { selectBeat, selectPattern, useApp, useAppStore } from '../../../../store/store';
import { drawnBand, type BandStroke } from '../../../../strings/bandDraw';
import { BandHand } from '../../../../strings/BandHand';
import { BandOver } from '../../../../strings/BandOver';
import { CheckBox } from '../../../../ui/CheckBox';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { percent, figure, PERCENT } from '../../../../ui/figures';
import { Chips, Group } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { useKept } from '../../../../ui/useKept';
import { words } from '../../../../words/make';
import { Para } from '../../../../ui/Words';
import { give, ONLY_SHAPE, useLive, useMaker } from './settings';

const NAMES: Record<BandOf, string> = {
  fullness: words.fullness,
  velocity: words.velocity,
  pitch: words.pitch,
  length: words.length,
  chance: words.chanceOf,
  nudge: words.nudge,
};
const OF: Record<BandOf, { least: number; most: number; told: (value: number) => string }> = {
  fullness: { least: 0, most: 1, told: percent },
  velocity: { least: 1, most: 127, told: (value) => String(Math.round(value)) },
  pitch: { least: 24, most: 96, told: (value) => String(Math.round(value)) },
  length: { least: 0.1, most: 4, told: (value) => words.steps(figure(value)) },
  chance: { least: 0, most: 1, told: percent },
  nudge: { least: -0.5, most: 0.5, told: percent },
};
const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
/** So many scales are offered; more would be no help. */
const OFFERED = new Set([
  'major',
  'minor',
  'major pentatonic',
  'minor pentatonic',
  'dorian',
  'phrygian',
  'lydian',
  'mixolydian',
  'harmonic minor',
  'melodic minor',
  'whole tone',
  'chromatic',
  'major blues',
  'minor blues',
]);
const SCALES = scaleNames().filter((name) => OFFERED.has(name));

/** Hits that are there keep what no band is drawn over since; it is chosen before anything changes. */
const ONLY = { shape: true, velocity: [], pitch: [], length: [], chance: [], nudge: [] };
const NEW_HITS = { shape: false, velocity: BANDS_DEFAULTS.velocity };

/** In so many places a band is drawn by hand: eight in a bar, but not so many that none could be hit. */
const placesIn = (bars: number): number => Math.max(16, Math.min(64, 8 * bars));

/** Hits drawn between a lower and an upper edge of each quantity. */
export const BandsMaker = ({ lane }: { lane: Lane }) => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const [live] = useLive();
  const [of, setOf] = useKept<BandOf>('make band', 'fullness');
  const [all, setAll] = useKept('make bands for all', false);
  const [over, setOver] = useKept('make band over', true);
  const [shape, setShape] = useKept<BandShape | 'hand'>('make band shape', 'hand');
  const [only, setOnly] = useKept(ONLY_SHAPE, BANDS_DEFAULTS.shape);
  const { settings, setSettings, seed, drawAgain } = useMaker<BandsSettings>(
    'bands',
    BANDS_DEFAULTS,
    lane.id,
  );
  const s = only === settings.shape ? settings : { ...settings, ...(only ? ONLY : NEW_HITS) };
  const change = (some: Partial<BandsSettings>, gesture?: string, from = seed) => {
    const next = { ...s, ...some };
    setSettings(next);
    const pattern = selectPattern(store.getState())!;
    const parts = bandsParts(pattern, all ? lanes : [lane], next, from);
    give(store, { maker: 'bands', parts, settings: next, seed: from }, live, gesture);
  };
  const names = useApp(({ look }) => look.noteNames);
  const { least, most } = OF[of];
  const told = of === 'pitch' ? (value: number) => noteName(Math.round(value), names) : OF[of].told;
  const points = s[of];
  const places = placesIn(useApp((state) => selectPattern(state)!.bars));
  const band = points.length ? partBandOf(points) : shapedBand('flat', least, most, 0.5);
  const first = bandAt(band, 0);
  const width = points.length ? (first.high - first.low) / (most - least) : 0;
  const setBand = (to: readonly number[], gesture?: string) => change({ [of]: [...to] }, gesture);
  const chooseShape = (next: BandShape | 'hand', wide = width, gesture?: string) => {
    setShape(next);
    if (next !== 'hand') setBand(pointsOf(shapedBand(next, least, most, wide, 2, seed)), gesture);
  };
  const draw = (stroke: BandStroke) => {
    setShape('hand');
    setBand(drawnBand(band, stroke, places, least, most), stroke.gesture);
  };
  const widen = (wide: number, gesture: string) => {
    if (shape !== 'hand') return chooseShape(shape, wide, gesture);
    const half = (wide * (most - least)) / 2;
    setBand(
      band.flatMap(({ at, low, high }) => {
        const centre = Math.min(most - half, Math.max(least + half, (low + high) / 2));
        return [at, centre - half, centre + half];
      }),
      gesture,
    );
  };
  const shown = { idle: points.length === 0, band, places, least, most, told, onDraw: draw };
  const optional = of !== 'fullness' && (of !== 'velocity' || only);
  const shaping = BAND_OF.filter((one) => one !== 'fullness' && s[one].length > 0);
  const [root = 'C', ...scale] = s.scale.split(' ');
  return (
    <Group title={all ? words.allLanes : words.makesFor(lane.name)}>
      <Chips label={words.quantity}>
        {BAND_OF.map((one) => (
          <Chip
            key={one}
            disabled={only && one === 'fullness'}
            pressed={of === one}
            onPress={() => setOf(one)}
          >
            {NAMES[one]}
          </Chip>
        ))}
      </Chips>
      <BandHand label={words.bandOver(NAMES[of])} {...shown} />
      {over ? <BandOver key={lane.id} label="" name={NAMES[of]} laneId={lane.id} {...shown} /> : null}
      <Chips>
        <Chip pressed={over} onPress={() => setOver(!over)}>
          {words.drawOverString}
        </Chip>
      </Chips>
      <Choice<BandShape | 'hand'>
        label={words.shapeOfBand}
        short={words.shape}
        value={shape}
        options={[
          { value: 'hand', name: words.drawnByHand },
          ...BAND_SHAPES.map((value) => ({ value, name: words.shapes[value] })),
        ]}
        onChange={(next) => chooseShape(next)}
      />
      <Figure of="share" label={words.width} short={words.widthShort} value={width} onChange={widen} />
      {optional && points.length ? (
        <Chips>
          <Chip onPress={() => setBand([])}>{words.leaveOut(NAMES[of])}</Chip>
        </Chips>
      ) : null}
      {of === 'pitch' ? (
        <>
          <Choice
            label={words.scale}
            short={words.scaleShort}
            value={root}
            options={ROOTS.map((value) => ({ value, name: value }))}
            onChange={(next) => change({ scale: `${next} ${scale.join(' ')}` })}
          />
          <Choice
            label={words.scaleShort}
            short=""
            value={scale.join(' ')}
            options={SCALES.map((value) => ({ value, name: value }))}
            onChange={(next) => change({ scale: `${root} ${next}` })}
          />
          {only ? null : (
            <Range
              label={words.voices}
              short={words.voicesShort}
              value={s.voices}
              least={1}
              most={4}
              step={1}
              shown={String(s.voices)}
              onChange={(voices, gesture) => change({ voices }, gesture)}
            />
          )}
        </>
      ) : null}
      {only ? null : (
        <>
          <Choice<Grid>
            label={words.bandGrid}
            short={words.grid}
            value={s.grid}
            options={GRIDS.map((value) => ({ value, name: value }))}
            onChange={(grid) => change({ grid })}
          />
          <Figure
            of="chance"
            label={words.heldOver}
            short={words.heldOverShort}
            value={s.heldOver}
            onChange={(heldOver, gesture) => change({ heldOver }, gesture)}
          />
          <Range
            label={words.onBeat}
            short={words.onBeatShort}
            value={s.onBeat}
            least={-1}
            most={1}
            step={0.05}
            written={PERCENT}
            shown={percent(s.onBeat)}
            onChange={(onBeat, gesture) => change({ onBeat }, gesture)}
          />
        </>
      )}
      <CheckBox
        checked={only}
        onChange={(to) => {
          setOnly(to);
          if (to && of === 'fullness') setOf('velocity');
        }}
      >
        {words.onlyShape}
      </CheckBox>
      {only ? (
        <Para quiet live>
          {shaping.length
            ? words.shapesOnly(listed(shaping.map((one) => NAMES[one].toLowerCase())))
            : words.nothingShaped}
        </Para>
      ) : null}
      <Chips>
        <Chip pressed={all} onPress={() => setAll(!all)}>
          {words.allLanes}
        </Chip>
        <Chip onPress={() => drawAgain((next) => change({}, undefined, next))}>{words.anotherDraw}</Chip>
      </Chips>
    </Group>
  );
};
