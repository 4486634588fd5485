import { useState } from 'react';
import {
  EXPORT_BOUNDS,
  EXPORT_DEFAULTS,
  exportPattern,
  type ExportOptions,
} from '../../../core/midi/exportPattern';
import { patternOf } from '../../../core/pattern/beatEdits';
import type { Beat } from '../../../core/beat/schema';
import { meterText } from '../../../core/beat/meter';
import { held } from '../../../core/units';
import { noticed } from '../../state/slices';
import { selectBeat, useApp, useDo } from '../../state/store';
import { Action } from '../../ui/Action';
import { saveBytes } from '../../ui/files';
import { Icon } from '../../ui/Icon';
import { NumberField } from '../../ui/NumberField';
import './export.css';

const listed = (names: string[]): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} and ${names.at(-1)!}`;

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

type Bounded = keyof typeof EXPORT_BOUNDS;

const FIELDS: { key: Bounded; label: string; under: string; about: string; step: number }[] = [
  { key: 'passes', label: 'Passes', under: 'times', about: 'How often the pattern plays', step: 1 },
  { key: 'ppq', label: 'Ticks a quarter', under: 'ticks', about: 'How finely time is written', step: 24 },
  {
    key: 'channel',
    label: 'Channel',
    under: '1 to 16',
    about: 'Drums are expected on 10. Lanes with a channel of their own keep it',
    step: 1,
  },
];

interface ChoicesProps {
  options: ExportOptions;
  onChange: (change: Partial<ExportOptions>) => void;
}

const Format = ({ options, onChange }: ChoicesProps) => (
  <fieldset className="row">
    <legend>Format</legend>
    {([0, 1] as const).map((format) => (
      <label key={format}>
        <input
          type="radio"
          name="format"
          checked={options.format === format}
          onChange={() => onChange({ format })}
        />
        {format === 0 ? 'Format 0: all in one track' : 'Format 1: tempo in a track of its own'}
      </label>
    ))}
  </fieldset>
);

const Numbers = ({ options, onChange }: ChoicesProps) => {
  const act = useDo();
  const change = (key: Bounded, label: string) => (asked: number) => {
    const { least, most } = EXPORT_BOUNDS[key];
    const value = held(Math.round(asked), least, most);
    if (value !== Math.round(asked))
      act(
        noticed({
          text: `${label} goes from ${least} to ${most}; ${asked} was held to ${value}.`,
          subject: key,
        }),
      );
    onChange({ [key]: value });
  };
  return (
    <>
      {FIELDS.map(({ key, label, under, about, step }) => (
        <div className="row" key={key}>
          <div>
            <b>{label}</b>
            <small>{about}</small>
          </div>
          <NumberField
            label={label}
            value={options[key]}
            {...EXPORT_BOUNDS[key]}
            under={under}
            step={step}
            width={84}
            onChange={change(key, label)}
          />
        </div>
      ))}
    </>
  );
};

const Muted = ({ options, onChange, silent }: ChoicesProps & { silent: string[] }) => (
  <label className="row">
    <span>
      <b>Write muted lanes too</b>
      <small>
        {silent.length
          ? options.includeMuted
            ? `${listed(silent)} will be written though not heard.`
            : `Left out as not heard: ${listed(silent)}.`
          : 'No lane is muted.'}
      </small>
    </span>
    <input
      type="checkbox"
      checked={options.includeMuted}
      onChange={(event) => onChange({ includeMuted: event.target.checked })}
    />
  </label>
);

const Chooser = ({ beat, first }: { beat: Beat; first: string | null }) => {
  const [options, setOptions] = useState(EXPORT_DEFAULTS);
  const [patternId, setPatternId] = useState(first);
  const act = useDo();
  const pattern = patternOf(beat, patternId);
  const file = exportPattern(beat, pattern, options);
  const silent = exportPattern(beat, pattern, { ...EXPORT_DEFAULTS, includeMuted: false }).leftOut;
  const onChange = (change: Partial<ExportOptions>) => setOptions({ ...options, ...change });

  const save = () => {
    saveBytes(file.bytes, file.name, 'audio/midi');
    const left = file.leftOut.length ? ` Left out as muted: ${listed(file.leftOut)}.` : '';
    const room = file.dropped
      ? ` ${count(file.dropped, 'note')} found no room beside others of the same number.`
      : '';
    act(
      noticed({
        text: `${file.name} was written: ${count(file.notes, 'note')}.${left}${room}`,
        subject: 'export',
      }),
    );
  };

  return (
    <div className="export">
      <label className="row">
        <b>Pattern</b>
        <select value={pattern.id} onChange={(event) => setPatternId(event.target.value)}>
          {beat.patterns.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <Numbers options={options} onChange={onChange} />
      <Format options={options} onChange={onChange} />
      <Muted options={options} onChange={onChange} silent={silent} />
      <section className="summary" aria-label="What will be written">
        <p className="figure name-of-file">{file.name}</p>
        <p>
          {`${count(file.bars, 'bar')} of ${meterText(pattern.meter)} at ${beat.tempo} BPM, ${count(file.notes, 'note')}, ending on the bar line.`}
        </p>
        {file.carried ? (
          <p>{`${count(file.carried, 'note')} that the feel moves over the loop’s edge ${file.carried === 1 ? 'comes' : 'come'} in at its other end.`}</p>
        ) : null}
        {file.merged ? (
          <p>{`${count(file.merged, 'stroke')} less than 1 ms from another on the same lane ${file.merged === 1 ? 'becomes' : 'become'} one with it.`}</p>
        ) : null}
        {file.notes === 0 ? (
          <p>There is nothing to hear in this pattern yet; the file would be empty.</p>
        ) : null}
        <Action label="Export MIDI" kind="filled" icon={<Icon name="download" />} onPress={save} />
      </section>
    </div>
  );
};

/** A pattern as a MIDI file. */
export const ExportScreen = () => {
  const beat = useApp(selectBeat);
  const patternId = useApp((state) => state.view.patternId);
  return (
    <>
      <header className="screen-head export-head">
        <div className="titles">
          <h1>Export</h1>
          <span className="quiet">{beat?.name ?? ''}</span>
        </div>
      </header>
      {beat ? <Chooser beat={beat} first={patternId} /> : null}
    </>
  );
};
