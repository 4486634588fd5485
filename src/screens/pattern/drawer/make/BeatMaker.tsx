import { useEffect, useState } from 'react';
import { DRUM_GROUPS, type DrumGroup } from '../../../../../core/document/choices';
import { GROUP_NAMES } from '../../../../../core/document/drumGroups';
import { instrument, type InstrumentId } from '../../../../../core/document/instruments';
import { meterText, type Meter } from '../../../../../core/document/meter';
import { listed } from '../../../../../core/document/text';
import type { Groove } from '../../../../../core/groove/groove';
import { POSTS } from '../../../../../core/groove/timekeeper';
import { beatParts } from '../../../../../core/make/beatParts';
import { BEAT_DEFAULTS, beatModel, wholeBeat } from '../../../../../core/make/wholeBeat';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../../../store/store';
import { noticed } from '../../../../store/slices';
import { CheckBox } from '../../../../ui/CheckBox';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Disclosure } from '../../../../ui/Disclosure';
import { Chips, Group } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { useKept } from '../../../../ui/useKept';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { GROOVES_FROM, loadGrooves, type GroovesFrom } from './library';
import { give, useLive, useMaker } from './settings';

/** A whole beat as it is set; figures by group go by their names. */
interface BeatMakerSettings {
  style: string;
  busy: number;
  timekeeper: string;
  backbeat: boolean;
  ghosts: boolean;
  fill: boolean;
  oneDrummer: boolean;
  /** Whether lanes that the style needs are added. */
  adds: boolean;
  /** Ids of the lanes that stay, with commas between. */
  held: string;
  /** By group of drums, with commas between: kick=60,hat=30. */
  groups: string;
}

const FIRST: BeatMakerSettings = {
  style: 'Rock backbeat',
  busy: 50,
  timekeeper: '',
  backbeat: true,
  ghosts: true,
  fill: false,
  oneDrummer: true,
  adds: true,
  held: '',
  groups: '',
};

/** @example groupsOf('kick=60') // { kick: 60 } */
const groupsOf = (text: string): Partial<Record<DrumGroup, number>> =>
  Object.fromEntries(
    text
      .split(',')
      .filter(Boolean)
      .map((one) => [one.split('=')[0]!, Number(one.split('=')[1])]),
  );

const withGroup = (text: string, group: DrumGroup, busy: number): string =>
  Object.entries({ ...groupsOf(text), [group]: busy })
    .map(([name, value]) => `${name}=${value}`)
    .join(',');

/** The grooves that a beat is made after, or how far they are. */
const useGrooves = (from: GroovesFrom): Groove[] | 'coming' | 'failed' => {
  const keepers = useApp((state) => state.grooves.keepers);
  const [library, setLibrary] = useState<{ from: GroovesFrom; grooves: Groove[] | 'failed' } | null>(null);
  useEffect(() => {
    let wanted = true;
    const set = (grooves: Groove[] | 'failed') => wanted && setLibrary({ from, grooves });
    loadGrooves(from, keepers).then(set, () => set('failed'));
    return () => {
      wanted = false;
    };
  }, [from, keepers]);
  return library?.from === from ? library.grooves : 'coming';
};

const FROM_NAMES: Record<GroovesFrom, string> = {
  library: words.fromLibrary,
  kept: words.fromKept,
  imported: words.fromImported,
};

/** Where the grooves come from. */
const From = ({ from, onFrom }: { from: GroovesFrom; onFrom: (from: GroovesFrom) => void }) => (
  <Choice<GroovesFrom>
    label={words.groovesFrom}
    short={words.groovesFromShort}
    value={from}
    options={GROOVES_FROM.map((value) => ({ value, name: FROM_NAMES[value] }))}
    onChange={onFrom}
  />
);

/** A whole beat at a tap. */
export const BeatMaker = () => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const act = useDo();
  const [live] = useLive();
  const [from, setFrom] = useKept<GroovesFrom>('make beat from', 'library');
  const library = useGrooves(from);
  const [held, setHeld] = useKept<string[]>('make beat held', []);
  const shown = useApp(selectPattern)!;
  /** A style of another meter was asked for, and how. */
  const [asked, setAsked] = useState<{
    some: Partial<BeatMakerSettings>;
    drawn: number;
    meter: Meter;
  } | null>(null);
  const { settings: s, setSettings, seed, drawAgain } = useMaker<BeatMakerSettings>('beat', FIRST, null);
  const choice = <From from={from} onFrom={setFrom} />;
  if (library === 'coming' || library === 'failed' || !library.length)
    return (
      <Group title={words.wholeBeat}>
        {choice}
        <Para quiet live>
          {library === 'coming'
            ? words.libraryComing
            : library === 'failed'
              ? words.libraryFailed
              : from === 'kept'
                ? words.nothingKept
                : words.nothingImported}
        </Para>
      </Group>
    );
  const named = [...new Set(library.map(({ style }) => style).filter(Boolean))].sort();
  // Of a person's own grooves all of them together are a style too.
  const styles = from === 'library' ? named : ['', ...named];
  const style = styles.includes(s.style) ? s.style : styles[0]!;
  const fits = (one: string) => meterText(meterOf(one)) === meterText(shown.meter);
  const meterOf = (one: string) => library.find((groove) => !one || groove.style === one)!.meter;
  const change = (some: Partial<BeatMakerSettings>, gesture?: string, drawn = seed, metered = false) => {
    const settings = { ...s, style, ...some, held: held.join(',') };
    setSettings(settings);
    const state = store.getState();
    const pattern = selectPattern(state)!;
    const model = beatModel(library.filter((one) => !settings.style || one.style === settings.style));
    if (!model) return void act(noticed({ text: words.noModel, subject: 'maker' }));
    const other = meterText(model.meter) !== meterText(pattern.meter) ? model.meter : null;
    // A waltz dropped into four beats is none: it brings its meter along, once that is wanted.
    if (other && !metered) return setAsked({ some, drawn, meter: other });
    setAsked(null);
    const groups = groupsOf(settings.groups);
    const groove = wholeBeat(
      model,
      {
        ...BEAT_DEFAULTS,
        ...settings,
        groups,
        bars: pattern.bars,
        timekeeper: (settings.timekeeper || null) as InstrumentId | null,
        tempo: selectBeat(state)!.tempo,
      },
      drawn,
    );
    const roomy = other ? { ...pattern, meter: other } : pattern;
    const { parts, added, left } = beatParts(roomy, lanes, groove, {
      kept: held,
      adds: settings.adds,
      oneDrummer: settings.oneDrummer,
      tempo: selectBeat(state)!.tempo,
    });
    // A turn of a control is told from where it began: lanes that its first move added are asked for again.
    const needed = [...lanes.filter(({ id }) => parts[id]), ...added];
    const needs = { lanes: needed, ...(other && { meter: other }) };
    give(store, { maker: 'beat', parts, settings, seed: drawn, needs }, live, gesture);
    if (added.length)
      act(noticed({ text: words.lanesAdded(listed(added.map(({ name }) => name))), subject: 'maker' }));
    if (left.length)
      act(
        noticed({
          text: words.leftOut(listed(left.map((id) => instrument(id).name))),
          subject: 'maker',
        }),
      );
  };
  const again = () => drawAgain((next) => change({}, undefined, next));
  const rule = (key: 'backbeat' | 'ghosts' | 'fill' | 'oneDrummer' | 'adds', name: string) => (
    <CheckBox checked={s[key]} onChange={(on) => change({ [key]: on } as Partial<BeatMakerSettings>)}>
      {name}
    </CheckBox>
  );
  return (
    <Group title={words.wholeBeat}>
      {choice}
      <Choice
        label={words.style}
        short={words.styleShort}
        value={style}
        options={[...styles.filter(fits), ...styles.filter((value) => !fits(value))].map((value) => ({
          value,
          name: fits(value) ? value || words.allOfThem : words.styleInMeter(value, meterText(meterOf(value))),
        }))}
        onChange={(style) => change({ style })}
      />
      {asked ? (
        <Group title={words.otherMeter(meterText(asked.meter))}>
          <Para live quiet>
            {words.otherMeterAbout(meterText(asked.meter), meterText(shown.meter))}
          </Para>
          <Chips>
            <Chip onPress={() => change(asked.some, undefined, asked.drawn, true)}>
              {words.takeMeter(meterText(asked.meter))}
            </Chip>
            <Chip onPress={() => setAsked(null)}>{words.keepMeter}</Chip>
          </Chips>
        </Group>
      ) : null}
      <Chips>
        <Chip onPress={again}>{words.makeABeat}</Chip>
      </Chips>
      <Range
        label={words.busy}
        short={words.busyShort}
        value={s.busy}
        least={0}
        most={100}
        step={1}
        shown={String(s.busy)}
        onChange={(busy, gesture) => change({ busy }, gesture)}
      />
      <Choice
        label={words.keeper}
        short={words.keeperShort}
        value={s.timekeeper}
        options={[
          { value: '', name: words.asTheStyle },
          ...POSTS.map(({ plain }) => ({ value: plain, name: instrument(plain).name })),
        ]}
        onChange={(timekeeper) => change({ timekeeper })}
      />
      {rule('backbeat', words.backbeat)}
      {rule('ghosts', words.ghosts)}
      {rule('fill', words.fill)}
      {rule('oneDrummer', words.oneDrummer)}
      {rule('adds', words.addsLanes)}
      <Disclosure title={words.byGroup}>
        {DRUM_GROUPS.map((group) => (
          <Range
            key={group}
            label={words.busyBy(GROUP_NAMES[group])}
            short={GROUP_NAMES[group]}
            value={groupsOf(s.groups)[group] ?? 50}
            least={0}
            most={100}
            step={1}
            shown={String(groupsOf(s.groups)[group] ?? 50)}
            onChange={(busy, gesture) => change({ groups: withGroup(s.groups, group, busy) }, gesture)}
          />
        ))}
      </Disclosure>
      <Disclosure title={words.holdLanes}>
        <Chips>
          {lanes.map(({ id, name }) => (
            <CheckBox
              key={id}
              label={words.hold(name)}
              checked={held.includes(id)}
              onChange={(on) => setHeld(on ? [...held, id] : held.filter((one) => one !== id))}
            >
              {name}
            </CheckBox>
          ))}
        </Chips>
      </Disclosure>
    </Group>
  );
};
