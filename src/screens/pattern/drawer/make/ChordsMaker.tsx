import { useState } from 'react';
import { noteName } from '../../../../../core/document/noteName';
import { bounds, RANGES } from '../../../../../core/document/ranges';
import type { Lane } from '../../../../../core/document/schema';
import {
  CHORDS_DEFAULTS,
  chordsPart,
  type ChordsMade,
  type ChordsSettings,
} from '../../../../../core/make/makers';
import { selectPattern, useApp, useAppStore } from '../../../../store/store';
import { CheckBox } from '../../../../ui/CheckBox';
import { figure, notes, type FigureWritten } from '../../../../ui/figures';
import { Group } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { TextField } from '../../../../ui/TextField';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { give, useLive, useMaker } from './settings';

/** What of the chords has no room, in a sentence. */
const leftText = ({ left, beyond }: Extract<ChordsMade, { ok: true }>): string | null =>
  [left.length && words.chordsLeft(left.join(' ')), beyond && words.notesBeyond(beyond)]
    .filter(Boolean)
    .join(' ') || null;

/** Chords by their names, one after the other over the pattern. */
export const ChordsMaker = ({ lane }: { lane: Lane }) => {
  const store = useAppStore();
  const [live] = useLive();
  const { settings: s, setSettings, seed } = useMaker<ChordsSettings>('chords', CHORDS_DEFAULTS, lane.id);
  const names = useApp(({ look }) => look.noteNames);
  const [wrong, setWrong] = useState<string | null>(null);
  const [left, setLeft] = useState<string | null>(null);
  const change = (some: Partial<ChordsSettings>, gesture?: string) => {
    const settings = { ...s, ...some };
    setSettings(settings);
    const out = chordsPart(selectPattern(store.getState())!, lane, settings);
    setWrong(out.ok ? null : out.error);
    setLeft(out.ok ? leftText(out) : null);
    if (out.ok) give(store, { maker: 'chords', parts: out.parts, settings, seed }, live, gesture);
  };
  const whole = (
    key: 'low' | 'inversion' | 'spread' | 'every' | 'length' | 'velocity',
    label: string,
    short: string,
    [least, most]: [number, number],
    told: (value: number) => string,
    written?: FigureWritten,
  ) => (
    <Range
      label={label}
      short={short}
      value={s[key]}
      least={least}
      most={most}
      step={1}
      shown={told(s[key])}
      {...(written && { written })}
      onChange={(value, gesture) => change({ [key]: value }, gesture)}
    />
  );
  const steps = (value: number) => words.steps(figure(value));
  return (
    <Group title={words.makesFor(lane.name)}>
      <TextField label={words.chordNames} value={s.chords} onDone={(chords) => change({ chords })} />
      <Para quiet live>
        {wrong ?? words.chordsAbout}
      </Para>
      <Para live>{left}</Para>
      {whole(
        'low',
        words.lowestRoot,
        words.lowestRootShort,
        [24, 84],
        (note) => noteName(note, names),
        notes(names),
      )}
      {whole('every', words.chordEvery, words.everySteps, [1, 32], steps)}
      {whole('length', words.chordLength, words.lengthShort, [1, 32], steps)}
      {whole('velocity', words.baseVelocity, words.velocityShort, [1, 127], String)}
      {whole('inversion', words.inversion, words.inversion, [0, 4], String)}
      {whole('spread', words.spread, words.spreadShort, [0, 2], String)}
      <Range
        label={words.later}
        short={words.laterShort}
        value={s.offset}
        {...bounds(RANGES.nudge)}
        step={0.01}
        shown={words.steps(figure(s.offset))}
        onChange={(offset, gesture) => change({ offset }, gesture)}
      />
      <CheckBox checked={s.doubled} onChange={(doubled) => change({ doubled })}>
        {words.doubled}
      </CheckBox>
    </Group>
  );
};
