import { Para } from '../../ui/Words';
import { Group, Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { useMemo } from 'react';
import { INSTRUMENTS, type InstrumentId } from '../../../core/document/instruments';
import { bringIn, type Bring } from '../../../core/bring/bring';
import {
  finerGrid,
  fittedBars,
  MOST_BARS,
  allAt,
  groovePiecesOf,
  TIMES,
  TIMES_NAMES,
  wholeFitBars,
  type Times,
} from '../../../core/groove/fit';
import { revoiced } from '../../../core/groove/revoice';
import type { Groove } from '../../../core/groove/groove';
import { groovePerformance } from '../../../core/groove/perform';
import { findGrid, extractTemplate } from '../../../core/analysis/extractTemplate';
import { oneFigure } from '../../../core/analysis/reportText';
import { beatEdited, tempoSet } from '../../store/doc';
import { offer } from '../../store/offers';
import { noticed, subjectClosed } from '../../store/slices';
import { patternShown } from '../../store/focus';
import { selectBeat, selectPattern, useApp, useDo, type Store, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { useKept } from '../../ui/useKept';
import { Choice } from '../../ui/Choice';
import { setFit, stopHearing, useHeard } from './audition';
import { grooveAside } from './tray';
import { barsWords } from './words';
import { words } from '../../words/grooves';

const BARS = Array.from({ length: MOST_BARS }, (_, at) => at + 1);

/** At which speed and length. */
const FitChoice = ({ groove, now }: { groove: Groove; now: Groove }) => {
  const { fit } = useHeard();
  const finer = finerGrid(groove, now);
  const own = fittedBars(groove, { ...fit, bars: null });
  const all = wholeFitBars(groove, { ...fit, bars: null });
  return (
    <View style={styles.choices}>
      <Choice
        label={words.speed}
        short={words.speed}
        value={fit.times}
        options={TIMES.map((value) => ({ value, name: TIMES_NAMES[value] }))}
        onChange={(value: Times) => setFit({ times: value })}
      />
      <Choice
        label={words.length}
        short={words.length}
        value={fit.bars === null ? 'own' : String(fit.bars)}
        options={[
          {
            value: 'own',
            name: all > own ? words.theFirstOwnOfBars(own, barsWords(all)) : words.asItIsBars(barsWords(own)),
          },
          ...BARS.map((bars) => ({ value: String(bars), name: barsWords(bars) })),
        ]}
        onChange={(value) => setFit({ bars: value === 'own' ? null : Number(value) })}
      />
      {finer ? (
        <Para quiet live>
          {words.hitsOnGrid(finer)}
        </Para>
      ) : null}
    </View>
  );
};

const takeFeel = (store: Store, groove: Groove): string => {
  const performance = groovePerformance(groove);
  const shape = extractTemplate(groove.name.slice(0, 80), performance, {
    grid: findGrid(performance),
    length: performance.length,
  });
  if (!shape) return words.itHasTooFewHits;
  const template = {
    ...shape,
    id: nanoid(),
    about: words.takenFromTheGrooveGroove(groove.name).slice(0, 200),
  };
  store.dispatch(beatEdited({ edit: { edit: 'keepTemplate', args: { template } } }));
  return words.itsFeelIsNowA(shape.name);
};

interface BringInProps {
  groove: Groove;
  /** As it is heard: at its speed and length, with its voices. */
  now: Groove;
}

/** The ways into the beat. */
export const BringIn = ({ groove, now }: BringInProps) => {
  const store = useAppStore();
  const beat = useApp(selectBeat);
  const pattern = useApp(selectPattern);
  const act = useDo();
  const all = [...new Set(now.lanes.map(({ instrument }) => instrument))];
  const [out, setOut] = useKept<ReadonlySet<InstrumentId>>(`drums of ${groove.id}`, new Set());
  const { fit, voicing } = useHeard();
  // Everything there is of it, meters as they change: what a pattern cannot hold is brought in as several.
  const pieces = useMemo(
    () => groovePiecesOf(revoiced(groove, voicing), fit.times),
    [groove, voicing, fit.times],
  );
  if (!beat || !pattern) return null;
  const isLong = pieces.length > 1 && fit.bars === null;
  const whole = isLong ? allAt(revoiced(groove, voicing), fit.times) : now;
  const chosen = all.filter((id) => !out.has(id));

  const say = (text: string, at: number) =>
    act(
      noticed({
        text,
        subject: 'brought',
        lasting: true,
        action: { label: words.undo, does: { kind: 'undo', at } },
        ...(Math.abs(groove.bpm - beat.tempo) >= 0.5 && {
          also: {
            label: words.takeItsTempoBpmBpm(oneFigure(groove.bpm).replace(/\.0$/, '')),
            does: offer(() => {
              act(tempoSet({ tempo: groove.bpm }));
              act(subjectClosed('brought'));
            }),
          },
        }),
      }),
    );
  const bring = (how: Bring, done: string) => {
    const { told, beat: after } = bringIn(beat, how.how === 'over' ? now : whole, how);
    const at = store.getState().doc.past.length + 1;
    stopHearing();
    act(
      beatEdited({
        edit: { edit: 'bringGroove', args: { groove: how.how === 'over' ? now : whole, bring: how } },
      }),
    );
    if (how.how === 'new') act(patternShown(how.id));
    const last = after.patterns[after.patterns.length - 1]!;
    const named = how.how === 'new' && last.name !== name ? words.itIsCalledLastHere(last.name) : '';
    say([done, named, ...told].filter(Boolean).join(' '), at);
  };
  const turn = (id: InstrumentId) => {
    const next = new Set(out);
    if (!next.delete(id)) next.add(id);
    setOut(next);
  };
  const name = now.name.slice(0, 80);
  const bringAll = () =>
    bring(
      { how: 'all', ids: pieces.map(() => ({ pattern: nanoid(), tray: nanoid() })), name },
      words.nameIsManyPatternsOf(name, pieces.length),
    );
  return (
    <>
      <FitChoice groove={groove} now={now} />
      <View style={styles.bringWay}>
        <Chip onPress={() => bring({ how: 'new', id: nanoid(), name }, words.nameIsANewPattern(name))}>
          {words.asANewPattern}
        </Chip>
        <Para quiet>
          {isLong
            ? words.onlyTheFirstBarsOf(barsWords(pieces[0]!.bars), groove.bars)
            : words.barsNextToYourPatterns(barsWords(now.bars))}
        </Para>
      </View>
      {isLong ? (
        <View style={styles.bringWay}>
          <Chip onPress={bringAll}>{words.allOfItAsMany(pieces.length)}</Chip>
          <Para quiet>{words.everyBarAndEveryTime}</Para>
        </View>
      ) : null}
      <View style={styles.bringWay}>
        <Chip
          onPress={() =>
            bring({ how: 'replace', patternId: pattern.id }, words.nameTookThePlaceOf(name, pattern.name))
          }
        >
          {words.replacePatternPattern(pattern.name)}
        </Chip>
        <Para quiet>{words.thePatternBecomesBarsLong(barsWords(isLong ? pieces[0]!.bars : now.bars))}</Para>
      </View>
      <Group title={words.layOverPatternPatternThese(pattern.name)} style={styles.bringWay}>
        <Chips>
          {all.map((id) => (
            <Chip key={id} pressed={!out.has(id)} onPress={() => turn(id)}>
              {INSTRUMENTS[id].name}
            </Chip>
          ))}
        </Chips>
        <Chip
          disabled={!chosen.length}
          onPress={() =>
            bring(
              { how: 'over', patternId: pattern.id, instruments: chosen },
              words.chosenOfNameWereAdded(
                chosen.map((id) => INSTRUMENTS[id].name).join(', '),
                name,
                pattern.name,
              ),
            )
          }
        >
          {words.layOver}
        </Chip>
      </Group>
      <View style={styles.bringWay}>
        <Chip onPress={() => grooveAside(now)}>{words.intoTheTray}</Chip>
        <Para quiet>{words.setAsideForTheSong}</Para>
      </View>
      <View style={styles.bringWay}>
        <Chip
          onPress={() => {
            const at = store.getState().doc.past.length + 1;
            say(takeFeel(store, now), at);
          }}
        >
          {words.itsFeelAsATemplate}
        </Chip>
        <Para quiet>{words.onlyHowItIsPlayed}</Para>
      </View>
    </>
  );
};
