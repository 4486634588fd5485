/** Feeds the mixer, away from the page: it is woken by the audio thread, so that nothing the page does makes it late. */
import { patternOf } from '../../core/pattern/beatEdits';
import { planPattern } from '../../core/play/plan';
import { playWindow } from '../../core/play/play';
import type { Beat } from '../../core/beat/schema';
import { KITS, standIn } from '../../core/sound/kits';
import { makeSound } from '../../core/sound/layers';
import { mixNote } from '../../core/sound/mixNotes';
import { change, startFeeder, tickAt, wake, type Batch, type Feeder } from '../audio/feeder';
import type { FromMixer, FromWorker, ToMixer, ToWorker } from '../audio/messages';
import { SAMPLE_RATE, START_SECONDS } from '../audio/timing';

interface State {
  beat: Beat | null;
  patternId: string;
  mixer: MessagePort | null;
  /** The number of each sound made so far, by kit and instrument. */
  sounds: Map<string, { index: number; layers: Float32Array[] }>;
  feeder: Feeder | null;
  /** Play was asked for before all was there. */
  waiting: boolean;
  now: { frame: number; at: number };
  making: boolean;
}

const state: State = {
  beat: null,
  patternId: '',
  mixer: null,
  sounds: new Map(),
  feeder: null,
  waiting: false,
  now: { frame: 0, at: 0 },
  making: false,
};

const toPage = (message: FromWorker) => postMessage(message);
const toMixer = (message: ToMixer) => state.mixer?.postMessage(message);

const now = () => state.now.frame + ((performance.now() - state.now.at) * SAMPLE_RATE) / 1000;

const soundKey = (beat: Beat, instrument: Beat['lanes'][number]['instrument']) =>
  `${beat.kit}/${standIn(KITS[beat.kit], instrument)}`;

const plan = () => planPattern(state.beat!, patternOf(state.beat!, state.patternId));

/** The sounds that the beat needs and that are not made yet. */
const missing = (): string[] => {
  const { beat } = state;
  if (!beat) return [];
  const wanted = new Set(beat.lanes.map((lane) => soundKey(beat, lane.instrument)));
  return [...wanted].filter((key) => !state.sounds.has(key));
};

const giveSound = ({ index, layers }: { index: number; layers: Float32Array[] }) =>
  toMixer({ type: 'sound', index, layers });

const makeOne = (key: string) => {
  const [kit, id] = key.split('/') as [keyof typeof KITS, Parameters<typeof makeSound>[1]];
  const sound = { index: state.sounds.size, layers: makeSound(KITS[kit], id, SAMPLE_RATE).layers };
  state.sounds.set(key, sound);
  giveSound(sound);
};

/** One sound at a time, so that a word from the page or the audio thread is never kept waiting long. */
const makeSounds = () => {
  const [key] = missing();
  state.making = key !== undefined;
  if (key === undefined) {
    if (state.waiting) begin();
    return;
  }
  makeOne(key);
  setTimeout(makeSounds, 0);
};

const hand = (batch: Batch | null) => {
  const { beat } = state;
  if (!batch || !beat) return;
  const notes = batch.notes.flatMap((note) => {
    const lane = beat.lanes[note.lane]!;
    const sound = state.sounds.get(soundKey(beat, lane.instrument));
    return sound ? [mixNote(lane, note.velocity, sound.index, note.frame)] : [];
  });
  toMixer({ type: 'replan', from: batch.from, notes });
  toPage({
    type: 'handed',
    from: batch.from,
    notes: batch.notes.map(({ frame, lane, step, stroke, note, velocity }) => ({
      frame,
      lane,
      step,
      stroke,
      note,
      velocity,
    })),
  });
};

const sayAnchor = () => {
  const { feeder } = state;
  if (feeder) toPage({ type: 'anchor', ...feeder.anchor, tempo: feeder.plan.tempo });
};

const begin = () => {
  if (!state.beat || !state.mixer || state.now.at === 0 || missing().length) {
    state.waiting = true;
    return;
  }
  state.waiting = false;
  const first = plan();
  // The first notes are worked out before the start is set, so that they cannot come too late for it.
  playWindow(first, 0, first.length);
  state.feeder = startFeeder(first, SAMPLE_RATE, Math.round(now() + START_SECONDS * SAMPLE_RATE));
  sayAnchor();
  hand(wake(state.feeder, now()));
};

const stop = () => {
  state.feeder = null;
  state.waiting = false;
  toMixer({ type: 'clock', on: false });
  toMixer({ type: 'silence' });
};

const takeBeat = (beat: Beat, patternId: string) => {
  const tempo = state.feeder?.plan.tempo;
  state.beat = beat;
  state.patternId = patternId;
  if (!state.making) makeSounds();
  if (!state.feeder) return;
  hand(change(state.feeder, plan(), now()));
  if (tempo !== beat.tempo) sayAnchor();
};

const strikeLane = (laneId: string, velocity: number) => {
  const { beat } = state;
  const lane = beat?.lanes.find((one) => one.id === laneId);
  if (!beat || !lane) return;
  const key = soundKey(beat, lane.instrument);
  if (!state.sounds.has(key)) makeOne(key);
  toMixer({ type: 'strike', note: mixNote(lane, velocity, state.sounds.get(key)!.index, 0) });
};

const fromMixer = (message: FromMixer) => {
  if (message.type === 'report') {
    toPage(message);
    return;
  }
  state.now = { frame: message.frame, at: performance.now() };
  if (state.waiting) begin();
  else if (state.feeder) hand(wake(state.feeder, message.frame));
};

onmessage = ({ data }: MessageEvent<ToWorker>) => {
  switch (data.type) {
    case 'connect':
      state.mixer = data.port;
      state.mixer.onmessage = (event: MessageEvent<FromMixer>) => fromMixer(event.data);
      state.sounds.forEach(giveSound);
      return;
    case 'beat':
      takeBeat(data.beat, data.patternId);
      return;
    case 'play':
      state.waiting = true;
      toMixer({ type: 'clock', on: true });
      return;
    case 'stop':
      stop();
      return;
    case 'strike':
      strikeLane(data.laneId, data.velocity);
      return;
    case 'report':
      toMixer({ type: 'report' });
  }
};

// A hidden page's audio may be paused with its clock; a timer keeps the feeder going all the same.
setInterval(() => {
  if (state.feeder && tickAt(state.feeder, now()) >= 0) hand(wake(state.feeder, now()));
}, 500);
