import { Figure } from '../../../../ui/Figure';
import { use, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import type { Grid } from '../../../../../core/document/grid';
import { instrument } from '../../../../../core/document/instruments';
import { nameIn, notesOfLane } from '../../../../../core/make/tunedLane';
import { hearNotes, type HeldIn, type NoteIn } from '../../../../audio/noteInput';
import { noticed } from '../../../../store/slices';
import { type PlayInSettings, playInSet } from '../../../../store/input';
import { countInToggled } from '../../../../store/transport';
import { selectBeat, useApp, useDo, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Chips } from '../../../../ui/Layout';
import { PlayContext } from '../../../../ui/playing';
import { Press } from '../../../../ui/Press';
import { Para, Words } from '../../../../ui/Words';
import { listen } from '../../../../web/listen';
import { Struck } from '../../../../web/Struck';
import { words } from '../../../../words/drawer';
import { words as sounds } from '../../../../words/sounds';
import { words as tuned } from '../../../../words/tuned';
import { ClickPart } from './ClickPart';
import { velocityAt } from '../../../../ui/velocityAt';
import { CODES, Pad } from './Pad';
import { ERASE_MS, eraseNow, newSession, nextStep, struck } from './playIn';
import type { HeldNote } from './repeats';
import { styles } from '../styles';
import { useRepeats } from './useRepeats';

const isText = (target: EventTarget | null): boolean =>
  target instanceof Element &&
  target.matches('input:not([type=range]):not([type=checkbox]), textarea, select');

/** The grids that a hand would roll on. */
const REPEATS = (['off', '1/4', '1/8', '1/8T', '1/16', '1/16T', '1/32', '1/32T'] as const).map((value) => ({
  value,
  name: value === 'off' ? words.repeatOff : words.repeatEvery(value),
}));

/** Notes from outside that come as near as this were struck together. */
const CHORD_MS = 50;

/** Playing in: pads and keys, and what is recorded of them; below them the click. */
export const PadsPage = () => {
  const store = useAppStore();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const levels = useApp((state) => selectBeat(state)!.levels);
  const open = useApp((state) => selectBeat(state)!.lanes.find(({ id }) => id === state.focus.openLane));
  const how = useApp(({ input }) => input.playIn);
  const playing = useApp(({ transport }) => transport.playing);
  const countIn = useApp(({ transport }) => transport.countIn);
  const late = useApp(({ transport }) => transport.latency);
  const names = useApp(({ look }) => look.noteNames);
  const act = useDo();
  const togglePlay = use(PlayContext);
  const session = useRef(newSession());
  const erasing = useRef<ReturnType<typeof setInterval> | null>(null);
  const set = (change: Partial<PlayInSettings>) => act(playInSet(change));
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
    repeats.current?.free({ laneId: laneId, pitch: pitch });
    letGo(laneId);
  };
  const strike = (laneId: string, velocity: number, time: number, pitch = 0) => {
    together.current.add(laneId);
    if (!how.erasing) {
      entered.current ||= how.stepwise && !playing;
      if (!entered.current) repeats.current?.hold({ laneId: laneId, pitch: pitch }, velocity);
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
      // Space meant to start or to stop does not end the recording, wherever the focus is left.
      if (event.code === 'Space' && how.recording) {
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
  const playedBy = (note: number): HeldNote | null => {
    if (open?.tuning) return { laneId: open.id, pitch: note - open.note };
    const lane = lanes.find((one) => one.note === note);
    return lane ? { laneId: lane.id, pitch: 0 } : null;
  };
  const [inputs, setInputs] = useState<number | null>(null);
  const playNote = useRef<(note: NoteIn) => void>(() => undefined);
  useEffect(() => {
    playNote.current = ({ note, velocity, time }) => {
      const played = playedBy(note);
      if (!played) return void act(noticed({ text: words.noLaneHasNoteNote(note), subject: 'midi in' }));
      strike(played.laneId, velocity, time, played.pitch);
      // It may be held: that it is let go comes by itself.
      setTimeout(() => letGo(played.laneId), CHORD_MS);
    };
  });
  const holdNote = useRef<(held: HeldIn) => void>(() => undefined);
  useEffect(() => {
    holdNote.current = ({ note, pressure }) => {
      const played = note === null ? null : playedBy(note);
      if (note !== null && !played) return;
      if (pressure === null) repeats.current?.free(played);
      // Some devices say of a pad that is let go that it is pressed no more: that is its end, and no softest stroke.
      else if (pressure > 0) repeats.current?.press(played, pressure);
    };
  });
  // Where ports are open, they give what the machine's inputs play too.
  const ports = useApp(({ input }) => input.ports);
  const machinePorts = useApp(({ input }) => input.machinePorts);
  const asks = midi && !machinePorts;
  useEffect(
    () =>
      midi || ports
        ? hearNotes({
            give: (note) => playNote.current(note),
            hold: (held) => holdNote.current(held),
            asks,
            found: setInputs,
          })
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
        <Chip pressed={countIn} onPress={() => act(countInToggled())}>
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
                    repeats.current?.press({ laneId: open.id, pitch: note - open.note }, velocityAt(height))
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
            onSlide={(velocity) => repeats.current?.press({ laneId: lane.id, pitch: 0 }, velocity)}
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
      <Figure
        of="share"
        label={words.quantizeWhatIsPlayedIn}
        short={words.quantize}
        value={how.quantize}
        onChange={(quantize) => set({ quantize })}
      />
      <ClickPart />
    </>
  );
};
