/** Feeds the mixer, away from the page: it is woken by the audio thread, so that nothing the page does makes it late. */
import { planLive, planSong } from '../../core/play/timelinePlan';
import { playable } from '../../core/play/playable';
import { patternOf } from '../../core/edit/beatEdits';
import { type Playable } from '../../core/play/playable';
import type { Beat, Lane } from '../../core/document/schema';
import { KITS, standIn } from '../../core/sound/kits';
import { makeSound } from '../../core/sound/layers';
import { isPlain, shapeLayers, shapeOf, type Shape } from '../../core/sound/shape';
import { mixNote } from '../../core/sound/mixNotes';
import {
  change,
  frameAt,
  framesOf,
  LEAD_SECONDS,
  startFeeder,
  switchTo,
  tickAt,
  wake,
  type SwitchAt,
  type Batch,
  type Feeder,
} from '../audio/feeder';
import { beatTicks } from '../../core/document/meter';
import { clickNotes, CLICKS, makeClicks } from '../../core/sound/click';
import type { MixNote } from '../../core/sound/mixer';
import type { Frames, Ticks } from '../../core/units';
import type { FromMixer, FromWorker, Metronome, SongPlay, ToMixer, ToWorker } from '../audio/messages';
import { SAMPLE_RATE, START_SECONDS } from '../audio/timing';

const MOST_SOUNDS = 96;

interface State {
  beat: Beat | null;
  patternId: string;
  /** Null where a pattern plays by itself. */
  song: SongPlay | null;
  mixer: MessagePort | null;
  /** The number of each sound made so far, by kit and instrument. */
  sounds: Map<string, { index: number; layers: Float32Array[] }>;
  feeder: Feeder | null;
  /** Play was asked for before all was there. */
  waiting: boolean;
  now: { frame: number; at: number };
  making: boolean;
  /** Sounds to be made beforehand. */
  soon: Set<string>;
  metronome: Metronome;
  countIn: Ticks;
  /** The frame at which the count-in ends. */
  countedAt: number;
}

const state: State = {
  beat: null,
  patternId: '',
  song: null,
  mixer: null,
  sounds: new Map(),
  feeder: null,
  waiting: false,
  now: { frame: 0, at: 0 },
  making: false,
  soon: new Set(),
  metronome: { on: false, level: 0.6, accent: true },
  countIn: 0,
  countedAt: 0,
};

const toPage = (message: FromWorker) => postMessage(message);
const toMixer = (message: ToMixer) => state.mixer?.postMessage(message);

const now = () => state.now.frame + ((performance.now() - state.now.at) * SAMPLE_RATE) / 1000;

const soundKey = (beat: Beat, lane: Lane) => {
  const base = `${beat.kit}/${standIn(KITS[beat.kit], lane.instrument)}`;
  const shape = shapeOf(lane);
  return isPlain(shape) ? base : `${base}/${JSON.stringify(shape)}`;
};

const plan = (): Playable => {
  const { beat, song, patternId } = state;
  if (song) return playable(planSong(beat!), { start: song.from, loop: song.loop });
  return playable(planLive(beat!, patternOf(beat!, patternId)));
};

/** The sounds that the beat needs and that are not made yet. */
const missing = (): string[] => {
  const { beat } = state;
  if (!beat) return [];
  const wanted = new Set(beat.lanes.map((lane) => soundKey(beat, lane)));
  return [...wanted].filter((key) => !state.sounds.has(key));
};

/** Those that will be wanted soon, after those that are wanted now. */
const nextToMake = (): string | undefined =>
  missing()[0] ?? [...state.soon].find((key) => !state.sounds.has(key));

const giveSound = ({ index, layers }: { index: number; layers: Float32Array[] }) =>
  toMixer({ type: 'sound', index, layers });

const giveClicks = () =>
  makeClicks(SAMPLE_RATE).forEach((layer, at) =>
    toMixer({ type: 'sound', index: CLICKS + at, layers: [layer] }),
  );

/** The clicks that fall into what has just been handed over: always while it counts in, which a switch does not. */
const clicks = (feeder: Feeder, from: number): MixNote[] => {
  const { metronome, countedAt } = state;
  const until = metronome.on ? feeder.until : Math.min(feeder.until, countedAt);
  return clickNotes(feeder.plan.beats(tickAt(feeder, from), tickAt(feeder, until)), {
    level: metronome.level,
    accent: metronome.accent,
    frameAt: (tick) => frameAt(feeder, tick),
  });
};

const makeOne = (key: string) => {
  const [kit, id, ...shape] = key.split('/') as [keyof typeof KITS, Parameters<typeof makeSound>[1], string];
  const plain = state.sounds.get(`${kit}/${id}`)?.layers ?? makeSound(KITS[kit], id, SAMPLE_RATE).layers;
  const layers = shape.length ? shapeLayers(plain, JSON.parse(shape.join('/')) as Shape, SAMPLE_RATE) : plain;
  forgetShapes();
  const used = new Set([...state.sounds.values()].map(({ index }) => index));
  let index = 0;
  while (used.has(index)) index += 1;
  const sound = { index, layers };
  state.sounds.set(key, sound);
  giveSound(sound);
};

/** A slider that is dragged shapes a sound at every move; those that no lane asks for any more go. */
const forgetShapes = () => {
  const { beat } = state;
  if (!beat || state.sounds.size < MOST_SOUNDS) return;
  const wanted = new Set(beat.lanes.map((lane) => soundKey(beat, lane)));
  for (const key of state.sounds.keys())
    if (key.split('/').length > 2 && !wanted.has(key)) state.sounds.delete(key);
};

/** One sound at a time, so that a word from the page or the audio thread is never kept waiting long. */
const makeSounds = () => {
  const key = nextToMake();
  state.making = key !== undefined;
  if (state.waiting && !missing().length) begin();
  if (key === undefined) return;
  makeOne(key);
  setTimeout(makeSounds, 0);
};

const hand = (batch: Batch | null) => {
  const { beat } = state;
  if (!batch || !beat) return;
  const notes = batch.notes.flatMap((note) => {
    const lane = beat.lanes[note.lane]!;
    const sound = state.sounds.get(soundKey(beat, lane));
    const frames = note.cut ? framesOf(state.feeder!, note.tick, note.length) : 0;
    return sound
      ? [{ ...mixNote(lane, note.velocity, sound.index, note.frame), frames, lane: note.lane }]
      : [];
  });
  const all = [...notes, ...(state.feeder ? clicks(state.feeder, batch.from) : [])];
  toMixer({ type: 'replan', from: batch.from, notes: all.sort((a, b) => a.frame - b.frame) });
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

/** Tells the page from where on the audio clock counts what, up to where notes have been handed over. */
const sayAnchor = (from: Frames) => {
  const { feeder } = state;
  if (!feeder) return;
  for (const { at, ...mark } of feeder.plan.marks(tickAt(feeder, from), tickAt(feeder, feeder.until)))
    toPage({ type: 'anchor', frame: frameAt(feeder, at), ...mark });
};

const begin = () => {
  if (!state.beat || !state.mixer || state.now.at === 0 || missing().length) {
    state.waiting = true;
    return;
  }
  state.waiting = false;
  const first = plan();
  // The first notes are worked out before the start is set, so that they cannot come too late for it.
  first.notes(first.start, first.tickAt(first.secondsAt(first.start) + LEAD_SECONDS));
  state.feeder = startFeeder(
    first,
    SAMPLE_RATE,
    Math.round(now() + START_SECONDS * SAMPLE_RATE),
    first.start - state.countIn,
  );
  state.countedAt = frameAt(state.feeder, first.start);
  const { frame } = state.feeder.anchor;
  hand(wake(state.feeder, now()));
  sayAnchor(frame);
};

const stop = () => {
  state.feeder = null;
  state.waiting = false;
  toMixer({ type: 'clock', on: false });
  toMixer({ type: 'silence' });
};

/** Another pattern begins; the one that plays goes on until then. */
const switchPattern = (beat: Beat, patternId: string, at: SwitchAt) => {
  const { feeder } = state;
  state.beat = beat;
  state.patternId = patternId;
  state.song = null;
  if (!state.making) makeSounds();
  if (!feeder) return;
  hand(switchTo(feeder, plan(), now(), at, beatTicks(feeder.plan.meterAt(tickAt(feeder, now())))));
  if (!feeder.next) sayAnchor(feeder.begins);
};

const takeBeat = (beat: Beat, patternId: string, song: SongPlay | null) => {
  state.song = song;
  if (state.feeder?.next) {
    state.beat = beat;
    state.feeder.next.plan = plan();
    return;
  }
  state.beat = beat;
  state.patternId = patternId;
  if (!state.making) makeSounds();
  if (!state.feeder) return;
  hand(change(state.feeder, plan(), now()));
  sayAnchor(state.feeder.anchor.frame);
};

const strikeLane = (laneId: string, velocity: number) => {
  const { beat } = state;
  const lane = beat?.lanes.find((one) => one.id === laneId);
  if (!beat || !lane) return;
  const key = soundKey(beat, lane);
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
  else if (state.feeder) {
    const { until, next } = state.feeder;
    hand(wake(state.feeder, message.frame));
    if (next && !state.feeder.next) sayAnchor(state.feeder.begins);
    else if (state.song && state.feeder.until > until) sayAnchor(until);
  }
};

onmessage = ({ data }: MessageEvent<ToWorker>) => {
  switch (data.type) {
    case 'connect':
      state.mixer = data.port;
      state.mixer.onmessage = (event: MessageEvent<FromMixer>) => fromMixer(event.data);
      giveClicks();
      state.sounds.forEach(giveSound);
      return;
    case 'beat':
      takeBeat(data.beat, data.patternId, data.song ?? null);
      return;
    case 'switch':
      switchPattern(data.beat, data.patternId, data.at);
      return;
    case 'metronome':
      state.metronome = data.metronome;
      if (state.feeder) hand(change(state.feeder, state.feeder.plan, now()));
      return;
    case 'play':
      state.countIn = data.countIn;
      state.waiting = true;
      toMixer({ type: 'clock', on: true });
      return;
    case 'stop':
      stop();
      return;
    case 'prepare':
      for (const id of data.instruments) state.soon.add(`${data.kit}/${standIn(KITS[data.kit], id)}`);
      if (!state.making) makeSounds();
      return;
    case 'strike':
      strikeLane(data.laneId, data.velocity);
      return;
    case 'report':
      // Before there is a mixer, nothing has been heard.
      if (state.mixer) toMixer({ type: 'report' });
      else toPage({ type: 'report', report: { late: 0, worst: 0, started: [] } });
  }
};

// A hidden page's audio may be paused with its clock; a timer keeps the feeder going all the same.
setInterval(() => {
  if (state.feeder && tickAt(state.feeder, now()) >= 0) hand(wake(state.feeder, now()));
}, 500);
