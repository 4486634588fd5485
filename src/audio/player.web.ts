import { soundingPattern, soundingSong } from '../../core/document/sounding';
import type { InstrumentId } from '../../core/document/instruments';
import type { Beat, Detour, Lane } from '../../core/document/schema';
import type { Switched } from '../../core/play/moves/detours';
import type { SoundingKit } from '../../core/samples/own';
import { patternOf } from '../../core/document/defaults';
import { QUARTER, type Ms, type Semitones, type Ticks, type Velocity } from '../../core/units';
import { newClock } from './clock';
import { heardFrame } from './heard';
import { onlookers, peakHearers, troubleHearers, type SoundTrouble } from './hearers';
import { giveOwn } from './ownSounds';
import { playerNow, setPlayer, type Anchor, type AudioPlayer } from './playerNow';
import { createRenewals, PAUSES_MS } from './renewals';
import { afterWord, NOTHING_TOLD, turned } from './told';
import type { SwitchTime } from './feeder';
import { SOUNDS_EACH } from './messages';
import type {
  FromWorker,
  HandedNote,
  MixLevels,
  Metronome,
  MixerReport,
  Resume,
  SongPlay,
  ToWorker,
} from './messages';
import { watched, type Watched } from '../workers/watched';
import { SAMPLE_RATE } from './timing';

export * from './heard';
export type { Anchor } from './playerNow';
export { hearPeaks, hearTrouble, lookOn, type Onlooker, type SoundTrouble } from './hearers';
export { ownSoundsFrom } from './ownSounds';

/** Another clock leads: at a time of the page's clock it stands at a tick, in the song from its first bar. */
export const alignTo = (time: Ms, tick: Ticks): void => {
  const player = playerNow();
  if (!player?.context) return;
  const frame = player.clock.heardAt(player.context, time) * SAMPLE_RATE;
  tell({ type: 'align', frame: Math.round(frame), tick });
};

const tell = (message: ToWorker, transfer: Transferable[] = []) => {
  const one = current();
  one.told = afterWord(one.told, message, one.playing !== null, anchorNow(one)?.patternId ?? null);
  one.worker?.worker.postMessage(message, transfer);
};

/** The last place told that the audio clock has come to. */
const anchorNow = (one: AudioPlayer): Anchor | undefined => {
  const frame = (one.context?.currentTime ?? 0) * SAMPLE_RATE;
  return one.anchors.findLast((anchor) => anchor.frame <= frame);
};

/** What a worker before gave to the mixer has rung out after so many ms. */
const TIDY_MS = 6000;

const giveUp = (one: AudioPlayer, trouble: SoundTrouble): void => {
  // The next press of play makes everything anew.
  one.renewals.forget();
  one.playing = null;
  stopLooking(one);
  for (const hear of troubleHearers) hear(trouble);
};

/** Where play stands: the last place told that is heard by now, or the first that is told. */
const placeOf = (one: AudioPlayer): Resume | null => {
  if (!one.context || !one.anchors.length) return null;
  const anchor = anchorNow(one) ?? one.anchors[0]!;
  return { frame: anchor.frame, tick: anchor.tick, until: one.until, switched: one.routes };
};

/** Tells a worker that knows nothing, or a mixer that has nothing, all that has been said; play goes on where it was. */
const retell = (one: AudioPlayer, resume: Resume | null): void => {
  const { beat, next, metronome } = one.told;
  const send = (message: ToWorker | null) => message && one.worker?.worker.postMessage(message);
  send(metronome);
  send(beat);
  if (one.playing) send(resume ? { type: 'play', countIn: 0, resume } : one.playing);
  if (one.playing) send(next);
};

/** The worker cannot be fetched, broke down or was ended: another one takes its place. What the mixer has goes on sounding. */
const workerGone = (): void => {
  const one = current();
  one.worker = null;
  for (const give of one.turning.values()) give(null);
  one.turning.clear();
  const pause = one.renewals.next();
  if (pause === null) giveUp(one, 'code');
  else setTimeout(() => one.worker ?? replaceWorker(one), pause);
};

const replaceWorker = (one: AudioPlayer): void => {
  if (one.told.next && anchorNow(one)?.patternId === one.told.next.patternId) one.told = turned(one.told);
  const fresh = hireWorker();
  one.worker = fresh;
  one.workers += 1;
  connectWorker(one);
  retell(one, placeOf(one));
  if (one.reports.length) fresh.worker.postMessage({ type: 'report' } satisfies ToWorker);
  setTimeout(
    () => one.worker === fresh && fresh.worker.postMessage({ type: 'tidy' } satisfies ToWorker),
    TIDY_MS,
  );
};

const hireWorker = (): Watched => {
  const one = watched(() => new Worker(new URL('../workers/playerWorker', window.location.href)), workerGone);
  one.worker.addEventListener('message', ({ data }: MessageEvent<FromWorker>) => hear(data, one));
  return one;
};

/** Puts the worker in touch with the mixer that is there. */
const connectWorker = ({ node, worker, workers, given }: AudioPlayer): void => {
  if (!node || !worker) return;
  const { port1, port2 } = new MessageChannel();
  node.port.postMessage({ port: port2 }, [port2]);
  const base = (workers % 8) * SOUNDS_EACH;
  const has = [...given.values()];
  worker.worker.postMessage({ type: 'connect', port: port1, base, has } satisfies ToWorker, [port1]);
};

const hear = (message: FromWorker, from: Watched) => {
  const one = current();
  if (from !== one.worker) return;
  switch (message.type) {
    case 'anchor':
      // What was said of a time from here on no longer holds.
      one.anchors = one.anchors.filter(({ frame }) => frame < message.frame).slice(-128);
      one.anchors.push(message);
      one.switches = one.switches.filter(({ frame }) => frame < message.frame);
      if (one.switches.at(-1)?.patternId !== message.patternId) one.switches.push(message);
      for (const onlooker of onlookers) onlooker.anchored(message);
      return;
    case 'handed':
      one.until = message.until;
      if (one.context) one.clock.read(one.context);
      one.handed = one.handed.filter((note) => note.frame < message.from).concat(message.notes);
      for (const onlooker of onlookers)
        onlooker.handed(message.from, message.until, message.notes, message.fresh ?? false);
      if (one.log && one.context)
        one.changes.push({
          at: performance.now(),
          ahead: ((message.from - one.context.currentTime * SAMPLE_RATE) * 1000) / SAMPLE_RATE,
        });
      if (one.log) one.log = one.log.filter((note) => note.frame < message.from).concat(message.notes);
      return;
    case 'given': {
      // Said of a mixer that is gone.
      if (!one.node) return;
      const { key, index, plan } = message;
      if (plan) one.given.set(key, { key, index, plan });
      else one.given.delete(key);
      return;
    }
    case 'want':
      return void giveOwn(message, from);
    case 'routed':
      one.routes = message.switched;
      return answerRoute(one, message);
    case 'report':
      one.reports.splice(0).forEach((give) => give(message.report));
  }
};

const answerRoute = (one: AudioPlayer, { asked, frame }: Extract<FromWorker, { type: 'routed' }>): void => {
  if (asked === undefined) return;
  const give = one.turning.get(asked);
  one.turning.delete(asked);
  const known = frame !== null && one.context;
  give?.(known ? Math.max(0, ((frame - heardFrame(one.context!)) * 1000) / SAMPLE_RATE) : null);
};

const create = (): AudioPlayer => {
  return {
    worker: hireWorker(),
    context: null,
    node: null,
    told: NOTHING_TOLD,
    playing: null,
    until: 0,
    given: new Map(),
    workers: 0,
    renewals: createRenewals(() => performance.now()),
    sign: 0,
    looking: null,
    starting: null,
    anchors: [],
    clock: newClock(),
    handed: [],
    switches: [],
    log: null,
    changes: [],
    reports: [],
    routes: [],
    turning: new Map(),
  };
};

const current = (): AudioPlayer => playerNow() ?? setPlayer(create());

/** A browser that has taken note of an address that failed asks for it no more: another one is as good. */
const MIXER_TRIES = ['', '?again=1', '?again=2'];

const addMixer = async (context: AudioContext): Promise<void> => {
  const address = String(require.unstable_resolveWorker('./mixer.worklet'));
  for (const [at, again] of MIXER_TRIES.entries()) {
    try {
      return await context.audioWorklet.addModule(address + again);
    } catch (fault) {
      if (at === MIXER_TRIES.length - 1) throw fault;
      await new Promise((resolve) => setTimeout(resolve, PAUSES_MS[at + 1]));
    }
  }
};

const connect = async (one: AudioPlayer): Promise<void> => {
  const context = new AudioContext({ sampleRate: SAMPLE_RATE, latencyHint: 'interactive' });
  one.context = context;
  await addMixer(context);
  const node = new AudioWorkletNode(context, 'ruddik-mixer', {
    numberOfInputs: 0,
    outputChannelCount: [2],
  });
  one.node = node;
  node.onprocessorerror = () => audioGone(one, context);
  context.onstatechange = () => {
    if (one.context !== context || !one.playing) return;
    if (context.state === 'closed') audioGone(one, context);
    // A call, an alarm or another program took the output for a while.
    else if (context.state !== 'running') void context.resume().catch(() => undefined);
  };
  node.port.onmessage = ({ data: { peaks, left } }: MessageEvent<MixLevels>) => {
    one.sign = performance.now();
    peakHearers.forEach((give) => give(peaks, left));
  };
  node.connect(context.destination);
  connectWorker(one);
};

/** Sound may begin only at a person's touch, so the audio clock is not made before the first one. */
const ready = async (): Promise<void> => {
  const one = current();
  if (!one.worker) replaceWorker(one);
  if (one.context?.state === 'closed') letGo(one);
  one.starting ??= connect(one);
  try {
    await one.starting;
  } catch (fault) {
    // The next one who asks begins anew.
    letGo(one);
    throw fault;
  }
  if (one.context?.state === 'suspended') await one.context.resume();
};

/** Leaves an audio clock that is of no use any more. */
const letGo = (one: AudioPlayer): void => {
  const { context, node } = one;
  Object.assign(one, {
    context: null,
    node: null,
    starting: null,
    // The next mixer has nothing.
    given: new Map(),
    clock: newClock(),
  } satisfies Partial<AudioPlayer>);
  node?.disconnect();
  if (context && context.state !== 'closed') void context.close().catch(() => undefined);
};

/** The audio clock ended: another one goes on from where it would be by now. */
const audioGone = (one: AudioPlayer, context: AudioContext): void => {
  if (one.context !== context) return;
  const place = placeOf(one);
  const tempo = one.anchors.at(-1)?.tempo ?? 120;
  const [frame, at] = [context.currentTime * SAMPLE_RATE, performance.now()];
  letGo(one);
  [one.anchors, one.handed, one.switches, one.until] = [[], [], [], 0];
  if (!one.playing) return;
  const pause = one.renewals.next();
  if (pause === null) return giveUp(one, 'output');
  const goOn = async (): Promise<void> => {
    await ready();
    if (!one.playing || !one.context) return;
    const [now, since] = [one.context.currentTime * SAMPLE_RATE, performance.now() - at];
    const passed = place ? ((frame - place.frame) / SAMPLE_RATE + since / 1000) * (tempo / 60) * QUARTER : 0;
    retell(one, place && { ...place, frame: Math.round(now), tick: place.tick + passed });
  };
  setTimeout(() => void goOn().catch(() => giveUp(one, 'output')), pause);
};

/** So often it is looked whether the mixer still gives a sign, and after so many ms without one it is gone. */
const LOOK_MS = 200;
const SILENT_MS = 900;

/** While it plays it is looked whether the sound goes on: an output that is lost is told by nothing. */
const keepLooking = (one: AudioPlayer): void => {
  stopLooking(one);
  one.sign = performance.now();
  let last = performance.now();
  one.looking = setInterval(() => {
    const now = performance.now();
    // A page that slept, or had much to do, has heard nothing either.
    if (now - last > 2 * LOOK_MS || document.hidden || !one.node) one.sign = now;
    last = now;
    if (one.context?.state === 'running' && now - one.sign > SILENT_MS) {
      one.sign = now;
      audioGone(one, one.context);
    }
  }, LOOK_MS);
};

const stopLooking = (one: AudioPlayer): void => {
  if (one.looking) clearInterval(one.looking);
  one.looking = null;
};

/** Hands over the beat as it is now; while it plays, the change is heard at once. */
export const setPlayed = (beat: Beat, patternId: string | null): void => {
  lastSong = null;
  const pattern = patternOf(beat, patternId);
  tell({ type: 'beat', beat: soundingPattern(beat, pattern), patternId: pattern.id });
};

/** What of the song a leader is expected to go round, since it did so before. */
let foreseen: SongPlay['loop'] = null;
let lastSong: (() => void) | null = null;

/** Hands over the song as it is now: from where it is to play, and what of it is repeated. */
export const setSongPlayed = (beat: Beat, patternId: string | null, song: SongPlay): void => {
  const pattern = patternOf(beat, patternId);
  lastSong = () =>
    tell({
      type: 'beat',
      beat: soundingSong(beat, pattern),
      patternId: pattern.id,
      song: { ...song, loop: song.loop ?? foreseen },
    });
  lastSong();
};

/** A leader that went from one place of the song to an earlier one is expected to do so again; null where it went on. */
export const foreseeLeap = (loop: SongPlay['loop']): void => {
  if (foreseen?.from === loop?.from && foreseen?.to === loop?.to) return;
  foreseen = loop;
  lastSong?.();
};

/** Lets another pattern begin while one plays: at once, at its next beat, or at its end. */
export const switchPattern = (beat: Beat, patternId: string | null, at: SwitchTime): void => {
  const pattern = patternOf(beat, patternId);
  tell({ type: 'switch', beat: soundingPattern(beat, pattern), patternId: pattern.id, at });
};

let routesAsked = 0;

/**
 * Has the pattern that plays go by another detour, from the next multiple of so many ticks on.
 *
 * @returns in how many ms it will be heard; null where no pattern plays by itself
 */
export const turnRoute = (detour: Detour | null, every: Ticks): Promise<Ms | null> =>
  new Promise((resolve) => {
    routesAsked += 1;
    current().turning.set(routesAsked, resolve);
    tell({ type: 'route', asked: routesAsked, detour, every });
  });

/** By which detours the pattern that plays went from when on, as it was done; what is still to come too. */
export const playedRoutes = (): readonly Switched[] => playerNow()?.routes ?? [];

/**
 * @param countIn how long is counted before the pattern begins
 * @param at where another clock leads: when what begins stands at its start, in ms of the page's clock
 */
export const startPlaying = async (countIn: Ticks = 0, at?: Ms): Promise<void> => {
  const one = current();
  one.anchors = [];
  one.handed = [];
  one.switches = [];
  one.playing = { type: 'play', countIn };
  await ready();
  if (!one.playing) return;
  const frame =
    at !== undefined && one.context
      ? Math.round(one.clock.heardAt(one.context, at) * SAMPLE_RATE)
      : undefined;
  one.playing = { type: 'play', countIn, ...(frame !== undefined && { at: frame }) };
  tell(one.playing);
  keepLooking(one);
};

/** Another clock ticks and may say start at any time: sound that has been allowed is kept awake for it. */
export const armPlaying = (): void => {
  if (playerNow()?.context?.state === 'running') tell({ type: 'arm' });
  else if (navigator.userActivation?.hasBeenActive)
    void ready().then(
      () => tell({ type: 'arm' }),
      () => undefined,
    );
};

export const stopPlaying = (): void => {
  const one = current();
  one.anchors = [];
  one.handed = [];
  one.playing = null;
  stopLooking(one);
  tell({ type: 'stop' });
  for (const onlooker of onlookers) onlooker.stopped();
};

/** Has sounds made before they are wanted. */
export const prepareSounds = (kit: SoundingKit, instruments: InstrumentId[]): void =>
  tell({ type: 'prepare', kit, instruments });

export const setMetronome = (metronome: Metronome): void => tell({ type: 'metronome', metronome });

/** Sounds one lane once. */
export const strikeLane = async (laneId: string, velocity: Velocity, pitch: Semitones = 0): Promise<void> => {
  await ready();
  tell({ type: 'strike', laneId, velocity, ...(pitch && { pitch }) });
};

/** Sounds a lane once that the beat need not have: a drum of a kit, a sound that is tried. */
export const hearLane = async (
  kit: SoundingKit,
  lane: Lane,
  velocity: Velocity,
  pitch: Semitones = 0,
): Promise<void> => {
  await ready();
  tell({ type: 'hear', kit, lane, velocity, ...(pitch && { pitch }) });
};

/** For measuring: keeps a list of what is handed to the audio clock from now on. */
export const startLog = (): void => {
  current().log = [];
  current().changes = [];
};

/** For measuring: when changes were handed over. */
export const readChanges = (): AudioPlayer['changes'] => current().changes;

/** For measuring: what was handed over, what the mixer began and how much of it late. */
export const readLog = (): Promise<{ handed: HandedNote[]; report: MixerReport }> =>
  new Promise((resolve) => {
    const one = current();
    one.reports.push((report) => resolve({ handed: one.log ?? [], report }));
    tell({ type: 'report' });
  });

declare global {
  interface Window {
    /** What was handed to the audio clock and what began, for those who measure it in the running app. */
    ruddik?: { startLog: typeof startLog; readLog: typeof readLog; readChanges: typeof readChanges };
  }
}

if (typeof window !== 'undefined') window.ruddik = { startLog, readLog, readChanges };
