import { CheckBox } from '../../ui/CheckBox';
import { Named } from '../../ui/Named';
import { Figures, Group, Chips } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import { MOST, PIGMENTS } from '../../../core/document/choices';
import type { Pattern } from '../../../core/document/schema';
import type { PatternEdit } from '../../../core/edit/edits';
import { RANGES } from '../../../core/document/ranges';
import { PATTERN_PRESETS } from '../../../core/edit/presets';
import { meterText } from '../../../core/document/meter';
import { beatEdited, patternsEdited } from '../../store/doc';
import { editShown } from '../../store/editing';
import { noticed } from '../../store/slices';
import { patternCopied } from '../../store/copied';
import { editedTogether, patternShown } from '../../store/focus';
import { switchAtSet } from '../../store/transport';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Cover } from '../../ui/Cover';
import { Choice } from '../../ui/Choice';
import { NameInput } from '../../ui/NameInput';
import { NumberField } from '../../ui/NumberField';
import { SwitchWhen } from '../../ui/SwitchWhen';
import { Sheet } from '../../ui/Sheet';
import { SortableLater } from '../../web/SortableLater';
import { BeadPicture } from '../../strings/BeadPicture';
import { PatternKeyPart } from './PatternKey';
import { TrialBar } from './TrialBar';
import { attempt, leaveTrial } from '../../store/trial';
import { words } from '../../words/pattern';

const UNITS = [2, 4, 8, 16] as const;

/** A whole rhythm, tried by ear before it is used. */
const Presets = ({ patternId }: { patternId: string }) => {
  const store = useAppStore();
  const trial = useApp(({ focus }) => focus.trial);
  const tried =
    trial?.edit.kind === 'beat' && trial.edit.edit.edit === 'patternPreset'
      ? trial.edit.edit.args.presetId
      : null;
  const choose = (presetId: string) => {
    const preset = PATTERN_PRESETS.find(({ id }) => id === presetId);
    if (!preset) return leaveTrial(store);
    attempt(store, preset.name, {
      kind: 'beat',
      edit: { edit: 'patternPreset', args: { patternId, presetId } },
    });
  };
  return (
    <>
      <Choice
        label={words.presetForTheWholePattern}
        short={words.preset}
        value={tried ?? ''}
        options={[
          { value: '', name: words.chooseARhythm },
          ...PATTERN_PRESETS.map(({ id, name }) => ({ value: id, name })),
        ]}
        onChange={choose}
      />
      {tried ? <TrialBar /> : null}
    </>
  );
};

/** Copying one bar onto another, or after the last. */
const CopyBar = ({ pattern }: { pattern: Pattern }) => {
  const store = useAppStore();
  const [from, setFrom] = useState(1);
  const [to, setTo] = useState(2);
  const last = Math.min(pattern.bars + 1, RANGES.bars.most);
  const [a, b] = [Math.min(from, pattern.bars), Math.min(to, last)];
  return (
    <Figures>
      <NumberField
        label={words.barToCopy}
        value={a}
        least={1}
        most={pattern.bars}
        under={words.copyBar}
        width={72}
        onChange={(asked) => setFrom(Math.round(asked))}
      />
      <NumberField
        label={words.ontoBar}
        value={b}
        least={1}
        most={last}
        under={words.underOntoBar}
        width={72}
        onChange={(asked) => setTo(Math.round(asked))}
      />
      <Chip
        disabled={a === b}
        onPress={() => editShown(store, { edit: 'copyBar', args: { from: a - 1, to: b - 1 } })}
      >
        {b > pattern.bars ? words.copyBarAToA(a, b) : words.copyBarAOntoBar(a, b)}
      </Chip>
    </Figures>
  );
};

/** Meter, length, name and colour of the pattern shown. */
const Shown = ({ pattern, count }: { pattern: Pattern; count: number }) => {
  const act = useDo();
  const store = useAppStore();
  const several = useApp(({ focus }) => focus.also.some((id) => id !== pattern.id));
  /** As the bar above the strings says: to all that are edited together. */
  const edit = (one: PatternEdit, gesture?: string) => editShown(store, one, gesture);
  const here = (one: PatternEdit) => act(patternsEdited({ patternIds: [pattern.id], edit: one }));
  return (
    <Group title={pattern.name}>
      <Named name={words.name}>
        <NameInput
          key={pattern.id}
          label={words.nameOfThePattern}
          value={pattern.name}
          onName={(name) => here({ edit: 'rename', args: { name } })}
        />
      </Named>
      <Figures>
        <NumberField
          label={words.bars}
          value={pattern.bars}
          {...RANGES.bars}
          under={words.bars2}
          width={56}
          onChange={(asked, gesture) => edit({ edit: 'setBars', args: { bars: asked } }, gesture)}
        />
        <NumberField
          label={words.beatsOfABar}
          value={pattern.meter.beats}
          {...RANGES.beats}
          under={words.beats}
          width={56}
          onChange={(asked, gesture) =>
            edit({ edit: 'setMeter', args: { meter: { ...pattern.meter, beats: asked } } }, gesture)
          }
        />
        <Chip onPress={() => edit({ edit: 'repeatBars', args: {} })}>{words.twiceAsLongTheSame}</Chip>
      </Figures>
      <Choice
        label={words.noteValueOfABeat}
        short={words.beatIs}
        value={String(pattern.meter.unit)}
        options={UNITS.map((unit) => ({ value: String(unit), name: `1/${unit}` }))}
        onChange={(unit) =>
          edit({
            edit: 'setMeter',
            args: { meter: { ...pattern.meter, unit: Number(unit) as (typeof UNITS)[number] } },
          })
        }
      />
      <Choice
        label={words.colourOfThePattern}
        short={words.colour}
        value={pattern.pigment ?? 'walnut'}
        options={PIGMENTS.map((value) => ({ value, name: value }))}
        onChange={(pigment) => here({ edit: 'recolour', args: { pigment } })}
      />
      {several ? <Para quiet>{words.onlyHere(pattern.name)}</Para> : null}
      <CopyBar pattern={pattern} />
      <PatternKeyPart pattern={pattern} />
      <Presets patternId={pattern.id} />
      <Chips>
        <Chip
          tone="danger"
          disabled={count < 2}
          onPress={() => act(beatEdited({ edit: { edit: 'removePattern', args: { id: pattern.id } } }))}
        >
          {words.deletePattern}
        </Chip>
      </Chips>
    </Group>
  );
};

/** All patterns of the beat: choosing, making, ordering. */
export const PatternsSheet = ({ onClose }: { onClose: () => void }) => {
  const beat = useApp(selectBeat)!;
  const shown = useApp(selectPattern)!;
  const also = useApp(({ focus }) => focus.also);
  const switchAt = useApp(({ transport }) => transport.switchAt);
  const copied = useApp(({ copied }) => copied.patternClip);
  const [several, setSeveral] = useState(also.length > 0);
  const act = useDo();
  const full = beat.patterns.length >= MOST.patterns;
  const show = (id: string) => act(patternShown(id));
  const make = (edit: 'addPattern' | 'duplicatePattern') => {
    const id = nanoid();
    act(
      beatEdited({
        edit:
          edit === 'addPattern'
            ? { edit, args: { id, like: shown } }
            : { edit, args: { id, from: shown.id } },
      }),
    );
    show(id);
  };
  const paste = () => {
    const id = nanoid();
    act(beatEdited({ edit: { edit: 'copyPattern', args: { id, pattern: copied! } } }));
    show(id);
  };
  const flip = (id: string) =>
    act(editedTogether(also.includes(id) ? also.filter((one) => one !== id) : [...also, id]));
  return (
    <Sheet title={words.patterns} open onClose={onClose}>
      <View>
        <Chips>
          <Chip disabled={full} onPress={() => make('addPattern')}>
            {words.newPattern}
          </Chip>
          <Chip disabled={full} onPress={() => make('duplicatePattern')}>
            {words.variationOfShown(shown.name)}
          </Chip>
          <Chip
            label={words.copyPatternShown(shown.name)}
            onPress={() => {
              act(patternCopied(shown));
              act(
                noticed({
                  text: words.shownIsCopiedPasteIt(shown.name),
                  subject: 'copy',
                }),
              );
            }}
          >
            {words.copyPattern}
          </Chip>
          {copied ? (
            <Chip disabled={full} onPress={paste}>
              {words.pasteCopied(copied.name)}
            </Chip>
          ) : null}
          <Chip
            label={words.intoTheTrayShown(shown.name)}
            onPress={() => {
              act(
                beatEdited({
                  edit: { edit: 'toTray', args: { id: nanoid(), name: shown.name, patternId: shown.id } },
                }),
              );
              act(noticed({ text: words.shownIsInTheTray(shown.name), subject: 'tray' }));
            }}
          >
            {words.intoTheTray}
          </Chip>
          <Chip
            pressed={several}
            onPress={() => {
              setSeveral(!several);
              act(editedTogether([]));
            }}
          >
            {words.editSeveralAtOnce}
          </Chip>
        </Chips>
        {full ? <Para quiet>{words.aBeatHoldsAtMost(MOST.patterns)}</Para> : null}
        <SortableLater
          label={words.patternsInTheirOrder}
          items={beat.patterns.map((pattern, at) => ({
            id: pattern.id,
            name: pattern.name,
            row: (
              <>
                {several ? (
                  <CheckBox
                    label={words.editPatternToo(pattern.name)}
                    checked={pattern.id === shown.id || also.includes(pattern.id)}
                    disabled={pattern.id === shown.id}
                    onChange={() => flip(pattern.id)}
                  >
                    {''}
                  </CheckBox>
                ) : null}
                <View
                  style={[
                    styles.patternRow,
                    pattern.id === shown.id && styles.current,
                    { borderLeftColor: `var(--${pattern.pigment ?? 'walnut'})` },
                  ]}
                >
                  <Cover
                    label={words.showPattern(pattern.name)}
                    current={pattern.id === shown.id}
                    onPress={() => show(pattern.id)}
                  />
                  <BeadPicture pattern={pattern} lanes={beat.lanes} width={96} height={44} />
                  <View style={styles.patternWords}>
                    <Words bold>{pattern.name}</Words>
                    <Words small quiet>
                      {words.meterBarsBar(meterText(pattern.meter), pattern.bars)}
                      {pattern.parent
                        ? words.varies(beat.patterns.find(({ id }) => id === pattern.parent)?.name)
                        : ''}
                    </Words>
                  </View>
                  {at < 9 ? <Words small quiet figure>{`⇧${at + 1}`}</Words> : null}
                </View>
              </>
            ),
          }))}
          onMove={(id, to) => act(beatEdited({ edit: { edit: 'movePattern', args: { id, to } } }))}
        />
        <SwitchWhen value={switchAt} onChange={(value) => act(switchAtSet(value))} />
        <Shown pattern={shown} count={beat.patterns.length} />
      </View>
    </Sheet>
  );
};
