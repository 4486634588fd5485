import { Para } from '../../ui/Words';
import { Group, Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { useMemo } from 'react';
import { INSTRUMENTS, type InstrumentId } from '../../../core/beat/instruments';
import { bringIn, type Bring } from '../../../core/groove/bring';
import {
  fittedBars,
  MOST_BARS,
  allAt,
  piecesOf,
  TIMES,
  TIMES_NAMES,
  wholeFitBars,
  type Times,
} from '../../../core/groove/fit';
import { revoiced } from '../../../core/groove/revoice';
import type { Groove } from '../../../core/groove/groove';
import { groovePerformance } from '../../../core/groove/perform';
import { findGrid, takeTemplate } from '../../../core/feel/takeTemplate';
import { oneFigure } from '../../../core/feel/reportText';
import { beatEdited, tempoSet } from '../../state/doc';
import { offer } from '../../state/offers';
import { store } from '../../state/session';
import { noticed, subjectClosed, viewChanged } from '../../state/slices';
import { selectBeat, selectPattern, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { useKept } from '../../ui/useKept';
import { Choice } from '../../ui/Choice';
import { setFit, stopHearing, useHeard } from './audition';
import { grooveAside } from './tray';
import { barsWords } from './words';

const BARS = Array.from({ length: MOST_BARS }, (_, at) => at + 1);

/** At which speed and length. */
const FitChoice = ({ groove }: { groove: Groove }) => {
  const { fit } = useHeard();
  const own = fittedBars(groove, { ...fit, bars: null });
  const all = wholeFitBars(groove, { ...fit, bars: null });
  return (
    <View style={styles.choices}>
      <Choice
        label="Speed"
        short="Speed"
        value={fit.times}
        options={TIMES.map((value) => ({ value, name: TIMES_NAMES[value] }))}
        onChange={(value: Times) => setFit({ times: value })}
      />
      <Choice
        label="Length"
        short="Length"
        value={fit.bars === null ? 'own' : String(fit.bars)}
        options={[
          {
            value: 'own',
            name: all > own ? `The first ${own} of ${barsWords(all)}` : `As it is: ${barsWords(own)}`,
          },
          ...BARS.map((bars) => ({ value: String(bars), name: barsWords(bars) })),
        ]}
        onChange={(value) => setFit({ bars: value === 'own' ? null : Number(value) })}
      />
    </View>
  );
};

const takeFeel = (groove: Groove): string => {
  const performance = groovePerformance(groove);
  const shape = takeTemplate(groove.name.slice(0, 80), performance, {
    grid: findGrid(performance),
    length: performance.length,
  });
  if (!shape) return 'It has too few hits to take a feel from.';
  const template = { ...shape, id: nanoid(), about: `Taken from the groove “${groove.name}”.`.slice(0, 200) };
  store.dispatch(beatEdited({ edit: { edit: 'keepTemplate', args: { template } } }));
  return `Its feel is now a template of your beat: “${shape.name}”. Choose it on the Feel screen.`;
};

interface BringInProps {
  groove: Groove;
  /** As it is heard: at its speed and length, with its voices. */
  now: Groove;
}

/** The ways into the beat. */
export const BringIn = ({ groove, now }: BringInProps) => {
  const beat = useApp(selectBeat);
  const pattern = useApp(selectPattern);
  const act = useDo();
  const all = [...new Set(now.lanes.map(({ instrument }) => instrument))];
  const [out, setOut] = useKept<ReadonlySet<InstrumentId>>(`drums of ${groove.id}`, new Set());
  const { fit, voicing } = useHeard();
  // Everything there is of it, meters as they change: what a pattern cannot hold is brought in as several.
  const pieces = useMemo(() => piecesOf(revoiced(groove, voicing), fit.times), [groove, voicing, fit.times]);
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
        action: { label: 'Undo', does: { kind: 'undo', at } },
        ...(Math.abs(groove.bpm - beat.tempo) >= 0.5 && {
          also: {
            label: `Take its tempo, ${oneFigure(groove.bpm).replace(/\.0$/, '')} BPM`,
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
    if (how.how === 'new') act(viewChanged({ patternId: how.id }));
    const last = after.patterns[after.patterns.length - 1]!;
    const named = how.how === 'new' && last.name !== name ? `It is called “${last.name}” here.` : '';
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
      `“${name}” is ${pieces.length} patterns of your beat now. They lie in the tray in their order.`,
    );
  return (
    <>
      <FitChoice groove={groove} />
      <View style={styles.bringWay}>
        <Chip
          onPress={() =>
            bring({ how: 'new', id: nanoid(), name }, `“${name}” is a new pattern of your beat.`)
          }
        >
          As a new pattern
        </Chip>
        <Para quiet>
          {isLong
            ? `Only the first ${barsWords(pieces[0]!.bars)} of ${groove.bars}: a pattern holds 16 of one time signature.`
            : `${barsWords(now.bars)}, beside the patterns there are.`}
        </Para>
      </View>
      {isLong ? (
        <View style={styles.bringWay}>
          <Chip onPress={bringAll}>{`All of it, as ${pieces.length} patterns`}</Chip>
          <Para quiet>Every bar and every time signature, in the tray one after the other.</Para>
        </View>
      ) : null}
      <View style={styles.bringWay}>
        <Chip
          onPress={() =>
            bring(
              { how: 'replace', patternId: pattern.id },
              `“${name}” took the place of pattern ${pattern.name}.`,
            )
          }
        >
          {`Replace pattern ${pattern.name}`}
        </Chip>
        <Para quiet>{`The pattern becomes ${barsWords(now.bars)} long; undo brings it back.`}</Para>
      </View>
      <Group
        title={`Lay over pattern ${pattern.name}: these drums are added to what is there`}
        style={styles.bringWay}
      >
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
              `${chosen.map((id) => INSTRUMENTS[id].name).join(', ')} of “${name}” were added to pattern ${pattern.name}.`,
            )
          }
        >
          Lay over
        </Chip>
      </Group>
      <View style={styles.bringWay}>
        <Chip onPress={() => grooveAside(now)}>Into the tray</Chip>
        <Para quiet>Set aside for the song, as a pattern of its own.</Para>
      </View>
      <View style={styles.bringWay}>
        <Chip
          onPress={() => {
            const at = store.getState().doc.past.length + 1;
            say(takeFeel(now), at);
          }}
        >
          Its feel as a template
        </Chip>
        <Para quiet>Only how it is played, for any pattern of the beat.</Para>
      </View>
    </>
  );
};
