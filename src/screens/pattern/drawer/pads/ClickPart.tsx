import { Figure } from '../../../../ui/Figure';
import { useRef, useState } from 'react';
import { beatTicks } from '../../../../../core/document/meter';
import { heldTempo } from '../../../../../core/edit/beatEdits';
import { ticksPerMs } from '../../../../../core/units';
import { heardAt } from '../../../../audio/player';
import { tempoSet } from '../../../../store/doc';
import { noticed } from '../../../../store/slices';
import { latencySet, metronomeSet } from '../../../../store/transport';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Chips } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { Para } from '../../../../ui/Words';
import { Struck } from '../../../../web/Struck';
import { words } from '../../../../words/drawer';

/** @example lateText(-41) // "41 ms early" */
const lateText = (ms: number): string => (ms === 0 ? words.onTime : words.msMs(Math.abs(ms), ms));

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

const TAPS = 8;
/** The strike has done it. */
const nothing = () => undefined;
/** Taps farther apart begin a new count. */
const TAP_PAUSE = 2500;

/** The tempo of a hand that taps: from the mean distance of its last taps. */
const useTapTempo = () => {
  const taps = useRef<number[]>([]);
  const act = useDo();
  return (time: number) => {
    const last = taps.current.at(-1);
    taps.current =
      last !== undefined && time - last < TAP_PAUSE ? [...taps.current, time].slice(-TAPS) : [time];
    const [first] = taps.current;
    if (taps.current.length < 3) return;
    const apart = (time - first!) / (taps.current.length - 1);
    act(tempoSet({ tempo: heldTempo(Math.round(60000 / apart)).value, gesture: 'tap tempo' }));
  };
};

/** Measures how late strokes arrive: the median distance of eight taps from the click. */
const useLatency = (done: (ms: number) => void) => {
  const store = useAppStore();
  const [taps, setTaps] = useState<number[] | null>(null);
  const tap = (time: number) => {
    const beat = selectBeat(store.getState())!;
    const pattern = selectPattern(store.getState())!;
    const tick = heardAt(time)?.tick;
    if (!taps || tick === undefined) return;
    const length = beatTicks(pattern.meter);
    const away = (tick - Math.round(tick / length) * length) / ticksPerMs(beat.tempo);
    const now = [...taps, away];
    if (now.length < TAPS) setTaps(now);
    else {
      setTaps(null);
      done(Math.round(median(now)));
    }
  };
  return { taps, begin: () => setTaps([]), tap };
};

/** The click that one plays to, how late strokes reach it, and the tempo of a hand that taps. */
export const ClickPart = () => {
  const metronome = useApp(({ transport }) => transport.metronome);
  const playing = useApp(({ transport }) => transport.playing);
  const late = useApp(({ transport }) => transport.latency);
  const act = useDo();
  const tapTempo = useTapTempo();
  const latency = useLatency((ms) => {
    act(latencySet(ms));
    act(noticed({ text: words.strokesArriveLateRecordingsAre(lateText(ms)), subject: 'latency' }));
  });
  return (
    <>
      <Range
        label={words.latencyOfWhatIsPlayed}
        short={words.latency}
        value={late}
        least={-100}
        most={300}
        step={1}
        shown={lateText(late)}
        onChange={(ms) => act(latencySet(ms))}
      />
      <Chips>
        {latency.taps ? (
          <Struck onStrike={(_, time) => latency.tap(time)}>
            <Chip onPress={nothing}>{words.tapWithTheClickTaps(TAPS - latency.taps.length)}</Chip>
          </Struck>
        ) : (
          <Chip disabled={!playing || !metronome.on} onPress={latency.begin}>
            {words.measureTheLatency}
          </Chip>
        )}
        <Struck onStrike={(_, time) => tapTempo(time)}>
          <Chip onPress={nothing}>{words.tapTempo}</Chip>
        </Struck>
      </Chips>
      {latency.taps || (playing && metronome.on) ? null : <Para quiet>{words.toMeasureTheLatencyPlay}</Para>}
      <Figure
        of="share"
        label={words.levelOfTheClick}
        short={words.click}
        value={metronome.level}
        onChange={(level) => act(metronomeSet({ level }))}
      />
      <Chips>
        <Chip pressed={metronome.accent} onPress={() => act(metronomeSet({ accent: !metronome.accent }))}>
          {words.accentTheFirstBeat}
        </Chip>
        <Chip
          pressed={metronome.onlyRecording}
          onPress={() => act(metronomeSet({ onlyRecording: !metronome.onlyRecording }))}
        >
          {words.clickOnlyInRecording}
        </Chip>
      </Chips>
    </>
  );
};
