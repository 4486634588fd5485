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
import type { Beat } from '../../../core/beat/schema';
import { listed } from '../../../core/beat/text';
import { EXPORT_BOUNDS } from '../../../core/midi/exportPattern';
import {
  DEPTHS,
  KIND_NAMES,
  KINDS,
  RATES,
  SCOPE_NAMES,
  SCOPES,
  type ExportHow,
  type ExportWhat,
} from '../../../core/export/choice';
import { TOKENS } from '../../../core/export/names';
import { layoutSong } from '../../../core/song/layout';
import { patternOf } from '../../../core/pattern/beatEdits';
import { GENERAL_MIDI } from '../../../core/midi/drumMap';
import { useApp } from '../../state/store';
import { NumberField } from '../../ui/NumberField';
import { Select } from '../../ui/Select';
import { useHeld } from '../../state/useHeld';

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
  const within = useHeld();
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
  const bars = Math.max(1, layoutSong(beat).bars.length);
  const from = Math.min(what.bars.from, bars);
  const to = Math.max(from, Math.min(what.bars.to, bars));
  return (
    <>
      <Figure
        label="From bar"
        about={`The song has ${bars}`}
        under="first"
        value={from}
        least={1}
        most={bars}
        onChange={(first) => onWhat({ bars: { from: first, to: Math.max(first, to) } })}
      />
      <Figure
        label="To bar"
        about="It is written too"
        under="last"
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
        label="What"
        value={how.scope}
        options={SCOPES.map((value) => ({ value, name: SCOPE_NAMES[value] }))}
        onChange={(scope) => onHow({ scope })}
      />
      {how.scope === 'pattern' ? (
        <Pick
          label="Pattern"
          value={patternOf(beat, what.patternId).id}
          options={beat.patterns.map(({ id, name }) => ({ value: id, name }))}
          onChange={(patternId) => onWhat({ patternId })}
        />
      ) : null}
      {how.scope === 'section' && places.length ? (
        <Pick
          label="Section"
          value={places.find(({ value }) => value === what.placeId)?.value ?? places[0]!.value}
          options={places}
          onChange={(placeId) => onWhat({ placeId })}
        />
      ) : null}
      {how.scope === 'range' ? <Bars {...props} /> : null}
      {usesPattern(how) ? (
        <Figure
          label="Passes"
          about="How often the pattern plays"
          under="times"
          value={how.passes}
          {...EXPORT_BOUNDS.passes}
          onChange={(passes) => onHow({ passes })}
        />
      ) : null}
      <Pick
        label="As"
        value={how.kind}
        options={KINDS.map((value) => ({ value, name: KIND_NAMES[value] }))}
        onChange={(kind) => onHow({ kind })}
      />
    </>
  );
};

const SPLIT_OPTIONS = [
  { value: 'none', name: 'All drums together' },
  { value: 'lanes', name: 'Each lane by itself' },
  { value: 'groups', name: 'Each group by itself' },
] as const;

const FORMATS = [
  { value: 0, name: 'Format 0: all in one track' },
  { value: 1, name: 'Format 1: tempo in a track of its own' },
] as const;

const Formats = ({ how, onHow }: ChoicesProps) => (
  <Group title="Format" style={styles.ruled}>
    <Radios<0 | 1>
      label="Format"
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
      label="Drum map"
      about="Which number each drum is written with"
      value={how.map?.name ?? ''}
      options={[
        { value: '', name: `The beat’s own${beat.map ? `: ${beat.map.name}` : ''}` },
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
  const { how, onHow } = props;
  return (
    <>
      <Pick label="Drums" value={how.split} options={SPLIT_OPTIONS} onChange={(split) => onHow({ split })} />
      {how.split === 'none' || how.format === 0 ? null : (
        <Pick
          label="Each becomes"
          value={how.as}
          options={[
            { value: 'tracks', name: 'A track of one file' },
            { value: 'files', name: 'A file of its own' },
          ]}
          onChange={(as) => onHow({ as })}
        />
      )}
      {how.split !== 'none' && how.format === 0 ? (
        <Para quiet>A file of format 0 has one track, so each becomes a file of its own.</Para>
      ) : null}
      <Figure
        label="Ticks a quarter"
        about="How finely time is written"
        under="ticks"
        step={24}
        value={how.ppq}
        {...EXPORT_BOUNDS.ppq}
        onChange={(ppq) => onHow({ ppq })}
      />
      <Figure
        label="Channel"
        about="Drums are expected on 10"
        under="1 to 16"
        value={how.channel}
        {...EXPORT_BOUNDS.channel}
        onChange={(channel) => onHow({ channel })}
      />
      <Pick
        label="Channels"
        value={how.channels}
        options={[
          { value: 'lanes', name: 'As the lanes have it' },
          { value: 'whole', name: 'This one for all' },
          { value: 'each', name: 'Each lane the next one' },
        ]}
        onChange={(channels) => onHow({ channels })}
      />
      <MapChoice {...props} />
      <Formats {...props} />
      <Tick
        label="Count-in"
        about="One bar of sticks first"
        checked={how.countIn}
        onChange={(countIn) => onHow({ countIn })}
      />
    </>
  );
};

/** How sound is rendered. */
export const AudioChoices = ({ how, onHow }: ChoicesProps) => (
  <>
    <Pick
      label="Depth"
      value={how.depth}
      options={DEPTHS.map((value) => ({
        value,
        name: value === '32f' ? '32 bit float' : `${value} bit`,
      }))}
      onChange={(depth) => onHow({ depth })}
    />
    <Pick
      label="Rate"
      value={String(how.rate)}
      options={RATES.map((rate) => ({ value: String(rate), name: `${rate / 1000} kHz` }))}
      onChange={(rate) => onHow({ rate: Number(rate) as ExportHow['rate'] })}
    />
    <Tick
      label="Stems"
      about="Each lane in a file of its own, without the limiter"
      checked={how.stems}
      onChange={(stems) => onHow({ stems })}
    />
    <Tick
      label="Let it ring out"
      about="Four seconds after the end; off, the end rings into the start, to loop"
      checked={how.tail}
      onChange={(tail) => onHow({ tail })}
    />
  </>
);

/** What matters however it is written. */
export const PlayChoices = ({ beat, how, onHow, silent }: ChoicesProps & { silent: string[] }) => {
  const muted = silent.length
    ? how.includeMuted
      ? `${listed(silent)} will be written though not heard.`
      : `Left out as not heard: ${listed(silent)}.`
    : `No lane of ${beat.name} is muted.`;
  return (
    <>
      <Tick
        label="Straight"
        about="Without the feel: hits where they were programmed"
        checked={how.straight}
        onChange={(straight) => onHow({ straight })}
      />
      {how.scope === 'song' ? null : (
        <Pick
          label="Early and late notes"
          about="At the edges of what is written"
          value={how.edges}
          options={[
            { value: 'wrap', name: 'Come in at the other end' },
            { value: 'hold', name: 'Are held at the edge' },
          ]}
          onChange={(edges) => onHow({ edges })}
        />
      )}
      <Tick
        label="Write muted lanes too"
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
      <Words bold>Names</Words>
      <TextField
        label="Names of the files"
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
            label={`Add ${token} to the names`}
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
