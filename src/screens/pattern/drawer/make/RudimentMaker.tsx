import { Figure } from '../../../../ui/Figure';
import { GRIDS, type Grid } from '../../../../../core/document/grid';
import { lanePatternOf, patternTicks } from '../../../../../core/document/defaults';
import { gridTicks } from '../../../../../core/document/grid';
import type { Lane, Pattern } from '../../../../../core/document/schema';
import type { Spot } from '../../../../../core/edit/spots';
import { RUDIMENTS, type Rudiment } from '../../../../../core/hands/rudiments';
import { relaid, RUDIMENT_DEFAULTS, type RudimentSettings } from '../../../../../core/make/rudimentMaker';
import { QUARTER } from '../../../../../core/units';
import { selectBeat, selectPattern, useApp, useAppStore } from '../../../../store/store';
import { CheckBox } from '../../../../ui/CheckBox';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { figure, FROM_ONE } from '../../../../ui/figures';
import { Chips, Group } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { Practice } from './Practice';
import { give, useLive, useMaker } from './settings';

const GRID_NAMES = GRIDS.map((value) => ({ value, name: value }));
const RUDIMENT_NAMES = RUDIMENTS.map(({ id, name, family }) => ({
  value: id,
  name: `${words.families[family]}: ${name}`,
}));

/** A rudiment's hands in order, its grace strokes small. @example sticksOf(RUDIMENTS[0]!) // "RLRLRLRL" */
const sticksOf = ({ strokes }: Rudiment): string =>
  strokes.map(({ hand, graces }) => (hand === 'R' ? 'l' : 'r').repeat(graces) + hand).join(' ');

/** From the first of some steps to the end of the last, in beats; null where there are none. */
const spanOfSpots = (
  pattern: Pattern,
  spots: readonly Spot[],
): Pick<RudimentSettings, 'from' | 'long'> | null => {
  if (!spots.length) return null;
  const places = spots.map(({ laneId, step }) => {
    const g = gridTicks(lanePatternOf(pattern, laneId).grid);
    return { from: step * g, to: (step + 1) * g };
  });
  const from = Math.min(...places.map((one) => one.from));
  return { from: from / QUARTER, long: (Math.max(...places.map((one) => one.to)) - from) / QUARTER };
};

/** One of the forty rudiments, laid over a span on one drum or shared out over several. */
export const RudimentMaker = ({ lane }: { lane: Lane }) => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const pattern = useApp(selectPattern)!;
  const selection = useApp(({ focus }) => focus.selection);
  const [live] = useLive();
  const {
    settings: s,
    setSettings,
    seed,
  } = useMaker<RudimentSettings>('rudiment', RUDIMENT_DEFAULTS, lane.id);
  const others = [
    { value: '', name: words.sameDrum },
    ...lanes.filter(({ id }) => id !== lane.id).map(({ id, name }) => ({ value: id, name })),
  ];
  const known = (id: string) => (others.some(({ value }) => value === id) ? id : '');
  const change = (some: Partial<RudimentSettings>, gesture?: string) => {
    const next = { ...s, ...some };
    const settings = { ...next, accents: known(next.accents), lefts: known(next.lefts) };
    setSettings(settings);
    const parts = relaid(selectPattern(store.getState())!, lane.id, settings);
    give(store, { maker: 'rudiment', parts, settings, seed }, live, gesture);
  };
  const rudiment = RUDIMENTS.find(({ id }) => id === s.rudiment) ?? RUDIMENTS[0]!;
  const beats = patternTicks(pattern) / QUARTER;
  const span = spanOfSpots(pattern, selection);
  const velocity = (key: 'velocity' | 'accent', label: string, short: string) => (
    <Figure
      of="velocity"
      label={label}
      short={short}
      value={s[key]}
      onChange={(value, gesture) => change({ [key]: value }, gesture)}
    />
  );
  return (
    <Group title={words.rudimentFor(lane.name)}>
      <Choice
        label={words.whichRudiment}
        short={words.rudimentShort}
        value={rudiment.id}
        options={RUDIMENT_NAMES}
        onChange={(id) => change({ rudiment: id, grid: RUDIMENTS.find((one) => one.id === id)!.grid })}
      />
      <Para quiet live>
        {words.sticks(sticksOf(rudiment))}
      </Para>
      <Chips>
        <Chip onPress={() => change({})}>{words.layIt}</Chip>
        {span ? <Chip onPress={() => change(span)}>{words.overSelected}</Chip> : null}
      </Chips>
      <Choice<Grid>
        label={words.laidOn}
        short={words.laidOn.toLowerCase()}
        value={s.grid}
        options={GRID_NAMES}
        onChange={(grid) => change({ grid })}
      />
      <Range
        label={words.fromBeat}
        short={words.fromBeatShort}
        value={Math.min(s.from, beats)}
        least={0}
        most={Math.max(0, beats - 0.5)}
        step={0.5}
        written={{ ...FROM_ONE, grain: 0.5 }}
        shown={figure(s.from + 1)}
        onChange={(from, gesture) => change({ from }, gesture)}
      />
      <Range
        label={words.longBeats}
        short={words.longShort}
        value={Math.min(s.long, beats)}
        least={0}
        most={beats}
        step={0.5}
        shown={s.long ? words.manyBeats(figure(s.long)) : words.toTheEnd}
        onChange={(long, gesture) => change({ long }, gesture)}
      />
      {velocity('velocity', words.baseVelocity, words.velocityShort)}
      {velocity('accent', words.accentVelocity, words.accentShort)}
      <Choice
        label={words.accentsTo}
        short={words.accentsTo.toLowerCase()}
        value={known(s.accents)}
        options={others}
        onChange={(accents) => change({ accents })}
      />
      <Choice
        label={words.leftTo}
        short={words.leftTo.toLowerCase()}
        value={known(s.lefts)}
        options={others}
        onChange={(lefts) => change({ lefts })}
      />
      <CheckBox checked={s.left} onChange={(left) => change({ left })}>
        {words.beginsLeft}
      </CheckBox>
      <Practice />
    </Group>
  );
};
