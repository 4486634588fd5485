import { nameIn, notesOfLane } from '../../../../core/make/tunedLane';
import { words as tuned } from '../../../words/tuned';
import { listen } from '../../../web/listen';
import { Struck } from '../../../web/Struck';
import { Press } from '../../../ui/Press';
import { Words, Para } from '../../../ui/Words';
import { Chips } from '../../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { use, useEffect, useEffectEvent, useRef, useState, type RefObject } from 'react';
import { gridTicks, type Grid } from '../../../../core/document/grid';
import { beatTicks } from '../../../../core/document/meter';
import { instrument } from '../../../../core/document/instruments';
import type { Lane } from '../../../../core/document/schema';
import { heldTempo } from '../../../../core/edit/beatEdits';
import { clamp, ticksPerMs } from '../../../../core/units';
import { hearNotes, type HeldIn, type NoteIn } from '../../../audio/noteInput';
import { heardAt, strikeLane } from '../../../audio/player';
import { tempoSet } from '../../../state/doc';
import { noticed, viewChanged, type PlayInSettings } from '../../../state/slices';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { InstrumentIcon } from '../../../ui/InstrumentIcon';
import { PlayContext } from '../../../ui/playing';
import { Range } from '../../../ui/Range';
import { createRepeats, type Repeats } from './repeats';
import { ERASE_MS, eraseNow, newSession, nextStep, struck, takeAt, type Session } from './playIn';
import { words } from '../../../words/drawer';
import { words as sounds } from '../../../words/sounds';

/** The keys of the computer's keyboard that play the lanes, by their place on it. */
const CODES = [
  ...['KeyA', 'KeyS', 'KeyD', 'KeyF', 'KeyG', 'KeyH', 'KeyJ', 'KeyK', 'KeyL'],
  ...['KeyQ', 'KeyW', 'KeyE', 'KeyR', 'KeyT', 'KeyY', 'KeyU', 'KeyI', 'KeyO', 'KeyP'],
];
const keyName = (at: number): string => CODES[at]?.slice(3) ?? '';

const isText = (target: EventTarget | null): boolean =>
  target instanceof Element &&
  target.matches('input:not([type=range]):not([type=checkbox]), textarea, select');

/** The grids that a hand would roll on. */
const REPEATS = (['off', '1/4', '1/8', '1/8T', '1/16', '1/16T', '1/32', '1/32T'] as const).map((value) => ({
  value,
  name: value === 'off' ? words.repeatOff : words.repeatEvery(value),
}));

/** How hard a pad is struck at a height of it, from its foot to its top; by a key, always the same. */
const velocityAt = (height: number | null): number =>
  height === null ? 100 : Math.round(clamp(27 + height * 100, 20, 127));

/** @example lateText(-41) // "41 ms early" */
const lateText = (ms: number): string => (ms === 0 ? words.onTime : words.msMs(Math.abs(ms), ms));

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;

/** Notes from outside that come as near as this were struck together. */
const CHORD_MS = 50;

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

interface PadProps {
  lane: Lane;
  at: number;
  onStrike: (velocity: number, time: number) => void;
  onSlide: (velocity: number) => void;
  onRelease: () => void;
}

const Pad = ({ lane, at, onStrike, onSlide, onRelease }: PadProps) => {
  const { material, pigment } = instrument(lane.instrument);
  return (
    <Struck
      onStrike={(height, time) => onStrike(velocityAt(height), time)}
      onSlide={(height) => onSlide(velocityAt(height))}
      onRelease={onRelease}
    >
      <Press
        style={[styles.pad, styles[material], { borderLeftColor: `var(--${lane.pigment ?? pigment})` }]}
        label={words.playLaneKey(lane.name, keyName(at))}
      >
        {/* One text: so the space parts the name from its key for whoever listens too. */}
        <Words small>
          {lane.name}{' '}
          <Words inline figure quiet style={styles.padKey}>
            {keyName(at)}
          </Words>
        </Words>
        <View style={styles.padIcon}>
          <InstrumentIcon of={lane.instrument} />
        </View>
      </Press>
    </Struck>
  );
};

/** So often it is looked what is held. */
const LOOK_MS = 8;
/** So long before its place a repeat is taken down, so that the pattern plays it on the spot. */
const TAKEN_AHEAD_MS = 80;

/** What is held repeats, taken down on its place of the grid where it records, and struck there by hand where it does not. */
const useRepeats = (how: PlayInSettings, session: RefObject<Session>) => {
  const store = useAppStore();
  const asked = useEffectEvent(() => how);
  const taken = useEffectEvent(
    (laneId: string, velocity: number, tick: number | null, pitch: number) =>
      void (tick !== null && how.recording
        ? takeAt(store, laneId, tick, velocity, pitch, session.current)
        : strikeLane(laneId, velocity, pitch)),
  );
  const repeats = useRef<Repeats | null>(null);
  const on = how.repeat !== null && !how.erasing;
  useEffect(() => {
    if (!on) return undefined;
    const own = createRepeats({
      now: () => performance.now(),
      tickAt: (time) => (store.getState().view.playing ? (heardAt(time)?.tick ?? null) : null),
      every: () => {
        const ticks = gridTicks(asked().repeat!);
        return { ticks, ms: ticks / ticksPerMs(selectBeat(store.getState())!.tempo) };
      },
      ahead: () => (asked().recording ? TAKEN_AHEAD_MS : 0),
      strike: (id, velocity, tick) => {
        const parting = id.indexOf(' ');
        taken(id.slice(parting + 1), velocity, tick, Number(id.slice(0, parting)));
      },
    });
    repeats.current = own;
    const timer = setInterval(own.look, LOOK_MS);
    return () => {
      repeats.current = null;
      clearInterval(timer);
    };
  }, [on, store]);
  return repeats;
};

/** One that is held: its pitch and its lane, whose id may hold any sign. */
const heldId = (laneId: string, pitch: number) => `${pitch} ${laneId}`;

/** Playing in: pads and keys, what is recorded of them, and the click. */
export const PadsPage = () => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const levels = useApp((state) => selectBeat(state)!.levels);
  const open = useApp((state) => selectBeat(state)!.lanes.find(({ id }) => id === state.view.openLane));
  const { playIn: how, metronome, playing, countIn, latency: late } = useApp((state) => state.view);
  const names = useApp(({ view }) => view.noteNames);
  const act = useDo();
  const togglePlay = use(PlayContext);
  const session = useRef(newSession());
  const erasing = useRef<ReturnType<typeof setInterval> | null>(null);
  const set = (change: Partial<PlayInSettings>) => act(viewChanged({ playIn: { ...how, ...change } }));
  const tapTempo = useTapTempo();
  const latency = useLatency((ms) => {
    act(viewChanged({ latency: ms }));
    act(
      noticed({
        text: words.strokesArriveLateRecordingsAre(lateText(ms)),
        subject: 'latency',
      }),
    );
  });

  useEffect(() => {
    session.current = newSession();
  }, [playing, how.recording]);

  const endErasing = () => {
    if (erasing.current) clearInterval(erasing.current);
    erasing.current = null;
  };
  const together = useRef(new Set<string>());
  const entered = useRef(false);
  const repeats = useRepeats(how, session);
  const letGo = (laneId?: string) => {
    endErasing();
    if (laneId === undefined) together.current.clear();
    else if (!together.current.delete(laneId)) return;
    // Step by step, what is held together goes on one step; letting go of the last goes on.
    if (together.current.size || !entered.current) return;
    entered.current = false;
    nextStep(store);
  };
  const release = (laneId: string, pitch = 0) => {
    repeats.current?.free(heldId(laneId, pitch));
    letGo(laneId);
  };
  const strike = (laneId: string, velocity: number, time: number, pitch = 0) => {
    together.current.add(laneId);
    if (!how.erasing) {
      entered.current ||= how.stepwise && !playing;
      if (!entered.current) repeats.current?.hold(heldId(laneId, pitch), velocity);
      return struck(store, laneId, velocity, time, { ...how, latency: late }, session.current, pitch);
    }
    endErasing();
    eraseNow(store, laneId, session.current);
    erasing.current = setInterval(() => eraseNow(store, laneId, session.current), ERASE_MS);
  };

  const keys = useRef<(event: KeyboardEvent) => void>(() => undefined);
  useEffect(() => {
    keys.current = (event) => {
      if (isText(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.code === 'Space' && how.stepwise && !playing) {
        event.preventDefault();
        event.stopPropagation();
        if (!event.repeat) nextStep(store);
        return;
      }
      // Space meant to stop does not end the recording, wherever the focus is left.
      if (event.code === 'Space' && how.recording && playing) {
        event.preventDefault();
        event.stopPropagation();
        if (!event.repeat) togglePlay();
        return;
      }
      const lane = lanes[CODES.indexOf(event.code)];
      if (!lane || CODES.indexOf(event.code) < 0) return;
      event.preventDefault();
      event.stopPropagation();
      if (!event.repeat) strike(lane.id, event.shiftKey ? levels.accent : levels.normal, event.timeStamp);
    };
  });
  const keyUp = useRef<(event: KeyboardEvent) => void>(() => undefined);
  useEffect(() => {
    keyUp.current = (event) => release(lanes[CODES.indexOf(event.code)]?.id ?? '');
  });
  useEffect(() => {
    const ends = [
      listen('keydown', (event) => keys.current(event), { capture: true }),
      listen('keyup', (event) => keyUp.current(event)),
      listen('blur', () => {
        endErasing();
        repeats.current?.free(null);
      }),
    ];
    return () => {
      ends.forEach((end) => end());
      endErasing();
    };
  }, [repeats]);

  const { midi } = how;
  /** A tuned lane that is open is what one plays: each note is a pitch of it. */
  const playedBy = (note: number): { id: string; pitch: number } | null => {
    if (open?.tuning) return { id: open.id, pitch: note - open.note };
    const lane = lanes.find((one) => one.note === note);
    return lane ? { id: lane.id, pitch: 0 } : null;
  };
  const [inputs, setInputs] = useState<number | null>(null);
  const playNote = useRef<(note: NoteIn) => void>(() => undefined);
  useEffect(() => {
    playNote.current = ({ note, velocity, time }) => {
      const played = playedBy(note);
      if (!played) return void act(noticed({ text: words.noLaneHasNoteNote(note), subject: 'midi in' }));
      strike(played.id, velocity, time, played.pitch);
      // It may be held: that it is let go comes by itself.
      setTimeout(() => letGo(played.id), CHORD_MS);
    };
  });
  const holdNote = useRef<(held: HeldIn) => void>(() => undefined);
  useEffect(() => {
    holdNote.current = ({ note, pressure }) => {
      const played = note === null ? null : playedBy(note);
      const id = played && heldId(played.id, played.pitch);
      if (note !== null && id === null) return;
      if (pressure === null) repeats.current?.free(id ?? null);
      // Some devices say of a pad that is let go that it is pressed no more: that is its end, and no softest stroke.
      else if (pressure > 0) repeats.current?.press(id ?? null, pressure);
    };
  });
  // Where ports are open, they give what the machine's inputs play too.
  const { ports, machinePorts } = useApp(({ view }) => view);
  const asks = midi && !machinePorts;
  useEffect(
    () =>
      midi || ports
        ? hearNotes(
            (note) => playNote.current(note),
            setInputs,
            asks,
            (held) => holdNote.current(held),
          )
        : undefined,
    [midi, ports, asks],
  );

  return (
    <>
      <Chips>
        <Chip tone="danger" pressed={how.recording} onPress={() => set({ recording: !how.recording })}>
          {words.record}
        </Chip>
        <Chip pressed={how.replace} onPress={() => set({ replace: !how.replace })}>
          {words.replace}
        </Chip>
        <Chip pressed={how.erasing} onPress={() => set({ erasing: !how.erasing })}>
          {words.holdToErase}
        </Chip>
        <Chip pressed={how.stepwise} onPress={() => set({ stepwise: !how.stepwise })}>
          {words.stepByStep}
        </Chip>
        <Chip pressed={countIn} onPress={() => act(viewChanged({ countIn: !countIn }))}>
          {words.countIn}
        </Chip>
        <Chip pressed={midi} onPress={() => set({ midi: !midi })}>
          {words.midiInput}
        </Chip>
      </Chips>
      {midi ? (
        <Para quiet live>
          {inputs === null
            ? words.lookingForMidiInputs
            : inputs
              ? words.listeningToInputsMidiInput(inputs)
              : words.noMidiInputWasFound}
        </Para>
      ) : null}
      {open?.tuning ? (
        <>
          {midi ? <Para quiet>{tuned.midiPlays(open.name)}</Para> : null}
          <View style={styles.pads} role="group" aria-label={open.name}>
            {notesOfLane(open).map((note) => {
              const called = open.loop ? sounds.slice(note - open.note + 1) : nameIn(open, note, names);
              return (
                <Struck
                  key={note}
                  onStrike={(height, time) => strike(open.id, velocityAt(height), time, note - open.note)}
                  onSlide={(height) =>
                    repeats.current?.press(heldId(open.id, note - open.note), velocityAt(height))
                  }
                  onRelease={() => release(open.id, note - open.note)}
                >
                  <Press
                    style={[
                      styles.pad,
                      { borderLeftColor: `var(--${open.pigment ?? instrument(open.instrument).pigment})` },
                    ]}
                    label={tuned.playNote(open.name, called)}
                  >
                    <Words small>{called}</Words>
                  </Press>
                </Struck>
              );
            })}
          </View>
        </>
      ) : null}
      <View style={styles.pads}>
        {lanes.map((lane, at) => (
          <Pad
            key={lane.id}
            lane={lane}
            at={at}
            onStrike={(velocity, time) => strike(lane.id, velocity, time)}
            onSlide={(velocity) => repeats.current?.press(heldId(lane.id, 0), velocity)}
            onRelease={() => release(lane.id)}
          />
        ))}
      </View>
      <Para quiet>{how.stepwise ? words.aPadOrItsKey : words.hitAPadAtItsTop}</Para>
      <Choice<Grid | 'off'>
        label={words.repeatHeld}
        short={words.repeat}
        value={how.repeat ?? 'off'}
        options={REPEATS}
        onChange={(repeat) => set({ repeat: repeat === 'off' ? null : repeat })}
      />
      {how.repeat ? <Para quiet>{words.repeatAbout}</Para> : null}
      <Range
        label={words.quantizeWhatIsPlayedIn}
        short={words.quantize}
        value={how.quantize}
        least={0}
        most={1}
        step={0.05}
        shown={`${Math.round(how.quantize * 100)} %`}
        onChange={(quantize) => set({ quantize })}
      />
      <Range
        label={words.latencyOfWhatIsPlayed}
        short={words.latency}
        value={late}
        least={-100}
        most={300}
        step={1}
        shown={lateText(late)}
        onChange={(ms) => act(viewChanged({ latency: ms }))}
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
      <Range
        label={words.levelOfTheClick}
        short={words.click}
        value={metronome.level}
        least={0}
        most={1}
        step={0.05}
        shown={`${Math.round(metronome.level * 100)} %`}
        onChange={(level) => act(viewChanged({ metronome: { ...metronome, level } }))}
      />
      <Chips>
        <Chip
          pressed={metronome.accent}
          onPress={() => act(viewChanged({ metronome: { ...metronome, accent: !metronome.accent } }))}
        >
          {words.accentTheFirstBeat}
        </Chip>
        <Chip
          pressed={metronome.onlyRecording}
          onPress={() =>
            act(viewChanged({ metronome: { ...metronome, onlyRecording: !metronome.onlyRecording } }))
          }
        >
          {words.clickOnlyInRecording}
        </Chip>
      </Chips>
    </>
  );
};
