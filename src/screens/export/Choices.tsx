import { Chip } from '../../ui/Chip';
import { Setting } from '../../ui/Setting';
import { CheckBox } from '../../ui/CheckBox';
import { Radios } from '../../ui/Radios';
import { TextField } from '../../ui/TextField';
import { Words, Para } from '../../ui/Words';
import { Group, Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { type ComponentProps } from 'react';
import type { Beat } from '../../../core/document/schema';
import { listed } from '../../../core/document/text';
import { EXPORT_BOUNDS } from '../../../core/export/exportPattern.mock';
import {
  DEPTHS,
  KIND_NAMES,
  EXPORT_KINDS,
  BOUNCE_RATES,
  SCOPE_NAMES,
  SCOPES,
  type ExportHow,
  type ExportWhat,
} from '../../../core/export/choice';
import { TOKENS } from '../../../core/export/names';
import { songTimeline } from '../../../core/play/timeline';
import { patternOf } from '../../../core/document/defaults';
import { GENERAL_MIDI } from '../../../core/midi/drumMap/drumMap';
import { useApp } from '../../store/store';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { useClamped } from '../../store/useClamped';
import { hasOwnSounds } from './leads';
import { words } from '../../words/export';

export interface ChoicesProps {
  beat: Beat;
  how: ExportHow;
  what: ExportWhat;
  onHow: (change: Partial<ExportHow>) => void;
  onWhat: (change: Partial<ExportWhat>) => void;
}

interface PickProps<T extends string> extends ComponentProps<typeof Select<T>> {
  about?: string;
}

const Pick = <T extends string>({ about, ...options }: PickProps<T>) => (
  <Setting title={options.label} about={about}>
    <Select {...options} />
  </Setting>
);

interface TickProps {
  label: string;
  about: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}

const Tick = ({ label, about, checked, onChange }: TickProps) => (
  <Setting title={label} about={about} onWords={() => onChange(!checked)}>
    <CheckBox label={label} checked={checked} onChange={onChange}>
      {''}
    </CheckBox>
  </Setting>
);

interface FigureProps {
  label: string;
  about: string;
  under: string;
  value: number;
  least: number;
  most: number;
  step?: number;
  onChange: (value: number) => void;
}

const Figure = ({ label, about, under, value, least, most, step = 1, onChange }: FigureProps) => {
  const within = useClamped();
  return (
    <Setting title={label} about={about}>
      <NumberField
        label={label}
        value={value}
        least={least}
        most={most}
        under={under}
        step={step}
        width={84}
        onChange={(asked) => onChange(within(Math.round(asked), least, most, label))}
      />
    </Setting>
  );
};

const Bars = ({ beat, what, onWhat }: ChoicesProps) => {
  const bars = Math.max(1, songTimeline(beat).bars.length);
  const from = Math.min(what.bars.from, bars);
  const to = Math.max(from, Math.min(what.bars.to, bars));
  return (
    <>
      <Figure
        label={words.fromBar}
        about={words.theSongHasBars(bars)}
        under={words.first}
        value={from}
        least={1}
        most={bars}
        onChange={(first) => onWhat({ bars: { from: first, to: Math.max(first, to) } })}
      />
      <Figure
        label={words.toBar}
        about={words.itIsWrittenToo}
        under={words.last}
        value={to}
        least={from}
        most={bars}
        onChange={(last) => onWhat({ bars: { from, to: last } })}
      />
    </>
  );
};

const usesPattern = ({ scope }: ExportHow): boolean =>
  scope === 'pattern' || scope === 'patterns' || scope === 'tray';

/** What of the beat, and as what. */
export const What = (props: ChoicesProps) => {
  const { beat, how, what, onHow, onWhat } = props;
  const places = beat.song.order.map(({ id, sectionId }, at) => ({
    value: id,
    name: `${at + 1}. ${beat.song.sections.find((section) => section.id === sectionId)?.name ?? ''}`,
  }));
  return (
    <>
      <Pick
        label={words.what}
        value={how.scope}
        options={SCOPES.map((value) => ({ value, name: SCOPE_NAMES[value] }))}
        onChange={(scope) => onHow({ scope })}
      />
      {how.scope === 'pattern' ? (
        <Pick
          label={words.pattern}
          value={patternOf(beat, what.patternId).id}
          options={beat.patterns.map(({ id, name }) => ({ value: id, name }))}
          onChange={(patternId) => onWhat({ patternId })}
        />
      ) : null}
      {how.scope === 'section' && places.length ? (
        <Pick
          label={words.section}
          value={places.find(({ value }) => value === what.placeId)?.value ?? places[0]!.value}
          options={places}
          onChange={(placeId) => onWhat({ placeId })}
        />
      ) : null}
      {how.scope === 'range' ? <Bars {...props} /> : null}
      {usesPattern(how) ? (
        <Figure
          label={words.passes}
          about={words.howOftenThePatternPlays}
          under={words.times}
          value={how.passes}
          {...EXPORT_BOUNDS.passes}
          onChange={(passes) => onHow({ passes })}
        />
      ) : null}
      <Pick
        label={words.as}
        value={how.kind}
        options={EXPORT_KINDS.map((value) => ({ value, name: KIND_NAMES[value] }))}
        onChange={(kind) => onHow({ kind })}
      />
    </>
  );
};

const SPLIT_OPTIONS = [
  { value: 'none', name: words.allDrumsTogether },
  { value: 'lanes', name: words.eachLaneByItself },
  { value: 'groups', name: words.eachGroupByItself },
] as const;

const FORMATS = [
  { value: 0, name: words.format0AllInOne },
  { value: 1, name: words.format1TempoInA },
] as const;

const Formats = ({ how, onHow }: ChoicesProps) => (
  <Group title={words.format} style={styles.ruled}>
    <Radios<0 | 1>
      label={words.format}
      value={how.format}
      options={FORMATS}
      onChange={(format) => onHow({ format })}
    />
  </Group>
);

/** The drum map: the beat's own, General MIDI, or one of those that were made. */
const MapChoice = ({ beat, how, onHow }: ChoicesProps) => {
  const maps = useApp((state) => state.grooves.maps);
  const all = [GENERAL_MIDI, ...maps.filter(({ name }) => name !== GENERAL_MIDI.name)];
  return (
    <Pick
      label={words.drumMap}
      about={words.whichNumberEachDrumIs}
      value={how.map?.name ?? ''}
      options={[
        { value: '', name: words.theBeatsOwn(beat.map ? `: ${beat.map.name}` : '') },
        ...all.map(({ name }) => ({ value: name, name })),
        ...(how.map && !all.some(({ name }) => name === how.map!.name)
          ? [{ value: how.map.name, name: how.map.name }]
          : []),
      ]}
      onChange={(name) => onHow({ map: all.find((map) => map.name === name) ?? null })}
    />
  );
};

/** How a MIDI file is written. */
export const MidiChoices = (props: ChoicesProps) => {
  const { beat, how, onHow } = props;
  return (
    <>
      <Pick
        label={words.drums}
        value={how.split}
        options={SPLIT_OPTIONS}
        onChange={(split) => onHow({ split })}
      />
      {how.split === 'none' || how.format === 0 ? null : (
        <Pick
          label={words.eachBecomes}
          value={how.as}
          options={[
            { value: 'tracks', name: words.aTrackOfOneFile },
            { value: 'files', name: words.aFileOfItsOwn },
          ]}
          onChange={(as) => onHow({ as })}
        />
      )}
      {how.split !== 'none' && how.format === 0 ? <Para quiet>{words.aFileOfFormat0}</Para> : null}
      <Figure
        label={words.ticksAQuarter}
        about={words.howFinelyTimeIsWritten}
        under={words.ticks}
        step={24}
        value={how.ppq}
        {...EXPORT_BOUNDS.ppq}
        onChange={(ppq) => onHow({ ppq })}
      />
      <Figure
        label={words.channel}
        about={words.drumsAreExpectedOn10}
        under={words.n1To16}
        value={how.channel}
        {...EXPORT_BOUNDS.channel}
        onChange={(channel) => onHow({ channel })}
      />
      <Pick
        label={words.channels}
        value={how.channels}
        options={[
          { value: 'lanes', name: words.asTheLanesHaveIt },
          { value: 'whole', name: words.thisOneForAll },
          { value: 'each', name: words.eachLaneTheNextOne },
        ]}
        onChange={(channels) => onHow({ channels })}
      />
      <MapChoice {...props} />
      <Formats {...props} />
      <Tick
        label={words.countIn}
        about={words.oneBarOfSticksFirst}
        checked={how.countIn}
        onChange={(countIn) => onHow({ countIn })}
      />
      {hasOwnSounds(beat) ? (
        <Tick
          label={words.early}
          about={words.earlyByTheirAttack}
          checked={how.lead}
          onChange={(lead) => onHow({ lead })}
        />
      ) : null}
    </>
  );
};

/** What a drum part tells. */
export const PaperChoices = ({ how, onHow }: ChoicesProps) => (
  <Tick
    label={words.stickings}
    about={words.handsUnderTheNotes}
    checked={how.hands}
    onChange={(hands) => onHow({ hands })}
  />
);

/** How sound is rendered. */
export const AudioChoices = ({ how, onHow }: ChoicesProps) => (
  <>
    <Pick
      label={words.depth}
      value={how.depth}
      options={DEPTHS.map((value) => ({
        value,
        name: value === '32f' ? words.n32BitFloat : words.depthBit(value),
      }))}
      onChange={(depth) => onHow({ depth })}
    />
    <Pick
      label={words.rate}
      value={String(how.rate)}
      options={BOUNCE_RATES.map((rate) => ({ value: String(rate), name: words.rateKHz(rate / 1000) }))}
      onChange={(rate) => onHow({ rate: Number(rate) as ExportHow['rate'] })}
    />
    <Tick
      label={words.stems}
      about={words.eachLaneInAFile}
      checked={how.stems}
      onChange={(stems) => onHow({ stems })}
    />
    <Tick
      label={words.letItRingOut}
      about={words.fourSecondsAfterTheEnd}
      checked={how.tail}
      onChange={(tail) => onHow({ tail })}
    />
  </>
);

/** What matters however it is written. */
export const PlayChoices = ({ beat, how, onHow, silent }: ChoicesProps & { silent: string[] }) => {
  const muted = silent.length
    ? how.includeMuted
      ? words.silentWillBeWrittenThough(listed(silent))
      : words.leftOutAsNotHeard(listed(silent))
    : words.noLaneOfBeatIs(beat.name);
  return (
    <>
      <Tick
        label={words.straight}
        about={words.withoutTheFeelHitsWhere}
        checked={how.straight}
        onChange={(straight) => onHow({ straight })}
      />
      {how.scope === 'song' ? null : (
        <Pick
          label={words.earlyAndLateNotes}
          about={words.atTheEdgesOfWhat}
          value={how.edges}
          options={[
            { value: 'wrap', name: words.comeInAtTheOther },
            { value: 'hold', name: words.areHeldAtTheEdge },
          ]}
          onChange={(edges) => onHow({ edges })}
        />
      )}
      <Tick
        label={words.writeMutedLanesToo}
        about={muted}
        checked={how.includeMuted}
        onChange={(includeMuted) => onHow({ includeMuted })}
      />
    </>
  );
};

/** What the files are called. */
export const Names = ({ how, onHow, preview }: ChoicesProps & { preview: string }) => {
  return (
    <View style={styles.namesRow}>
      <Words bold>{words.names}</Words>
      <TextField
        label={words.namesOfTheFiles}
        value={how.names}
        most={200}
        numeric
        back
        onType={(names) => onHow({ names })}
      />
      <Chips>
        {TOKENS.map((token) => (
          <Chip
            key={token}
            label={words.addTokenToTheNames(token)}
            onPress={() => onHow({ names: `${how.names}-{${token}}` })}
          >
            {`{${token}}`}
          </Chip>
        ))}
      </Chips>
      <Words figure quiet id="name-preview" style={styles.nameOfFile}>
        {preview}
      </Words>
    </View>
  );
};
