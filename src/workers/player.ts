import { barTicks, beatTicks } from '../../core/document/meter';
import { patternOf, patternTicks } from '../../core/document/defaults';
import type { Beat, Detour, Lane } from '../../core/document/schema';
import type { Switched } from '../../core/play/moves/detours';
import { playable, type Playable } from '../../core/play/playable';
import { planLive, planSong } from '../../core/play/timelinePlan';
import { clickNotes } from '../../core/mix/click';
import { ceilingOf, type MixNote } from '../../core/mix/mixer';
import { mixed, mixNotes } from '../../core/mix/mixNotes';
import { soundKey, type Kit, type LoadSound } from '../../core/samples/sounds';
import { clamp, type Frames, type Ticks } from '../../core/units';
import {
  alikeBefore,
  change,
  cutOf,
  frameAt,
  identity,
  framesOf,
  LEAD_SECONDS,
  realign,
  startFeeder,
  switchTo,
  tickAt,
  wake,
  type SwitchTime,
  type Batch,
  type Feeder,
} from '../audio/feeder';
import { createGivenSounds, prompt } from './givenSounds';
import type {
  FromMixer,
  FromWorker,
  GivenSound,
  Metronome,
  Resume,
  SongPlay,
  ToMixer,
  ToWorker,
} from '../audio/messages';
import { SAMPLE_RATE, START_SECONDS } from '../audio/timing';

/** What is due so shortly before a led start is worked out sounds at once. */
const MADE_UP_SECONDS = 0.1;

/** Changes are not put off longer than this, however long the last one took; and it is forgotten by so much with each. */
const MOST_COST_SECONDS = 0.3;
const COST_FADES = 0.8;

/** A word of the clock that seems to have waited longer, in ms, tells that the machine's clock was set. */
const MOST_WAITED = 1000;

/** A player that takes another one's place leaves so much to what the mixer has. */
const TAKEN_OVER_SECONDS = 0.4;

/** What the player is given: where its words go, the time, and a way to go on later. */
export interface PlayerParts {
  toPage: (message: FromWorker) => void;
  /** In ms, from any start. */
  now: () => number;
  /** The wall clock's time, in ms; left out, this machine's. */
  wall?: () => number;
  /** Goes on once the words that wait have been heard. */
  later: (work: () => void) => void;
  /** How a drum of a kit is come by; left out, it is synthesized. */
  load?: LoadSound;
}

/** A stroke stands at most so many slots ahead of where it sounds. */
const MOST_SLOTS = 4;

const isSameDetour = (a: Detour | null, b: Detour | null): boolean => JSON.stringify(a) === JSON.stringify(b);

/** Where the mixer listens. */
export interface MixerPort {
  postMessage: (message: ToMixer, transfer: Transferable[]) => void;
}

interface State {
  beat: Beat | null;
  patternId: string;
  /** Null where a pattern plays by itself. */
  song: SongPlay | null;
  mixer: MixerPort | null;
  feeder: Feeder | null;
  /** Play was asked for before all was there. */
  waiting: boolean;
  /** Where another clock leads: the frame at which what begins stands at its start. */
  led: Frames | null;
  /** Where play goes on, when this player takes another one's place. */
  resume: Resume | null;
  /** The audio clock is told though nothing plays: play may be asked for at any time. */
  armed: boolean;
  now: { frame: number; at: number };
  /** How long the last changes took from their beginning to the mixer's port, in frames. */
  cost: Frames;
  metronome: Metronome;
  countIn: Ticks;
  /** The frame at which the count-in ends. */
  countedAt: number;
  /** How often a lane has been sounded by hand. */
  struck: number;
  /** By which detours the pattern goes from when on, since it began. */
  switched: readonly Switched[];
}

const atFirst = (): State => ({
  beat: null,
  patternId: '',
  song: null,
  mixer: null,
  feeder: null,
  waiting: false,
  led: null,
  resume: null,
  armed: false,
  now: { frame: 0, at: 0 },
  cost: 0,
  metronome: { on: false, level: 0.6, accent: true },
  countIn: 0,
  countedAt: 0,
  struck: 0,
  switched: [],
});

/**
 * Feeds the mixer: takes the page's words, plans notes ahead of the audio clock, and has the sounds made that they need. It
 * is woken by the audio thread, so that nothing the page does makes a note late.
 */
export const createPlayer = ({ toPage, now: clock, wall = Date.now, later, load }: PlayerParts) => {
  const state = atFirst();
  const toMixer = (message: ToMixer, transfer: Transferable[] = []) =>
    state.mixer?.postMessage(message, transfer);
  const now = () => state.now.frame + ((clock() - state.now.at) * SAMPLE_RATE) / 1000;
  const given = createGivenSounds({
    toPage,
    toMixer,
    later,
    load,
    beat: () => state.beat,
    allThere: () => state.waiting && begin(),
    // What was handed over before it was there is handed over with it.
    oneMore: () => state.feeder && handChanged(state.feeder, state.feeder.plan),
  });

  const plan = (): Playable => {
    const { beat, song, patternId } = state;
    if (song) return playable(planSong(beat!), { start: song.from, loop: song.loop });
    const { switched } = state;
    const options = switched.length > 1 ? { switched } : {};
    return playable(planLive(beat!, patternOf(beat!, patternId), options), options);
  };

  const shownDetour = (): Detour | null => patternOf(state.beat!, state.patternId).detour ?? null;
  const tellRoutes = (frame: Frames | null, asked?: number) =>
    toPage({ type: 'routed', switched: state.switched, frame, ...(asked !== undefined && { asked }) });

  /** What plays goes by the pattern's own detour, and by no other one yet. */
  const beginRoutes = () => {
    state.switched = state.song ? [] : [{ at: 0, detour: shownDetour() }];
    tellRoutes(null);
  };

  /**
   * Another detour holds from the next slot or bar on, to the tick. Where a stroke that is on its way already stands beyond that,
   * as one that is played ahead, from the one after it.
   */
  const turnRoute = (detour: Detour | null, every: Ticks, asked?: number) => {
    const { feeder } = state;
    if (!feeder || feeder.next || state.song) return tellRoutes(null, asked);
    const tick = tickAt(feeder, cutOf(feeder, now()));
    const done = state.switched.filter(({ at }, index) => index === 0 || at <= tick);
    state.switched = done;
    const before = plan();
    let at = Math.max(0, Math.ceil(tick / every - 1e-9) * every);
    let next = before;
    for (let slot = 0; slot < MOST_SLOTS; slot++, at += every) {
      state.switched = [...done, { at, detour }];
      next = plan();
      if (alikeBefore(feeder, before, next, now() + state.cost)) break;
    }
    handChanged(feeder, next);
    tellRoutes(frameAt(feeder, state.switched.at(-1)!.at), asked);
  };

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

  const hand = (batch: Batch | null) => {
    const { beat } = state;
    if (!batch || !beat) return;
    const notes = batch.notes.flatMap((note) => {
      const sound = given.soundOf(beat.lanes[note.lane]!);
      if (!sound) return [];
      const lasts = note.cut || sound.plan.held ? framesOf(state.feeder!, note.tick, note.length) : 0;
      return mixed(beat, note, sound, sound.index, note.frame, state.countedAt).map((one) => ({
        ...one,
        frames: lasts && lasts + (one.lead ?? 0),
      }));
    });
    const all = [...notes, ...(state.feeder ? clicks(state.feeder, batch.from) : [])];
    toMixer({ type: 'replan', from: batch.from, notes: all.sort((a, b) => a.frame - b.frame) });
    toPage({
      type: 'handed',
      from: batch.from,
      until: state.feeder?.until ?? batch.from,
      notes: batch.notes.map((one) => {
        const { frame, lane, step, stroke, note, velocity, channel, tick, length } = one;
        const frames = state.feeder ? framesOf(state.feeder, tick, length) : 0;
        return { id: identity(one), frame, lane, step, stroke, note, velocity, channel, frames };
      }),
      ...(batch.fresh && { fresh: true }),
    });
  };

  /** Tells the page from where on the audio clock counts what, up to where notes have been handed over. */
  const sayAnchor = (from: Frames) => {
    const { feeder } = state;
    if (!feeder) return;
    for (const { at, ...mark } of feeder.plan.marks(tickAt(feeder, from), tickAt(feeder, feeder.until)))
      toPage({ type: 'anchor', frame: frameAt(feeder, at), ...mark });
  };

  /** Play goes on where another player, or another audio clock, had brought it: to the frame. */
  const goOn = ({ frame, tick, until, switched }: Resume) => {
    state.resume = null;
    if (switched.length > 1 && !state.song) {
      state.switched = switched;
      tellRoutes(null);
    }
    const feeder = startFeeder(plan(), SAMPLE_RATE, frame, tick);
    const due = (seconds: number) => Math.round(now() + seconds * SAMPLE_RATE);
    // Worked out before the place is set, so that they cannot come too late for it.
    feeder.plan.notes(tickAt(feeder, due(0)), tickAt(feeder, due(LEAD_SECONDS)));
    // What comes sooner is with the mixer already.
    const there = until === undefined ? 0 : Math.min(until, due(TAKEN_OVER_SECONDS));
    feeder.until = feeder.begins = Math.max(frame, there, due(START_SECONDS));
    state.feeder = feeder;
    state.countedAt = frameAt(feeder, feeder.plan.start);
    hand(wake(feeder, now()));
    sayAnchor(feeder.begins);
  };

  /**
   * Another plan from as soon on as it can be there. A large pattern takes longer to be planned than changes are cut short by: what
   * was due meanwhile has sounded as it was planned before.
   */
  const handChanged = (feeder: Feeder, next: Playable) => {
    const from = now();
    // Not beyond what the mixer has: a player that has only just begun would leave a hole.
    const later = clamp(feeder.until - cutOf(feeder, from), 0, state.cost);
    hand(change(feeder, next, from + later));
    state.cost = Math.min(MOST_COST_SECONDS * SAMPLE_RATE, Math.max(now() - from, state.cost * COST_FADES));
  };

  /** The one place where playing begins, as soon as beat, mixer, clock and sounds are there. */
  const begin = () => {
    if (!state.beat || !state.mixer || state.now.at === 0 || given.missing().length) {
      state.waiting = true;
      return;
    }
    state.waiting = false;
    beginRoutes();
    if (state.resume) return goOn(state.resume);
    const first = plan();
    // The first notes are worked out before the start is set, so that they cannot come too late for it.
    first.notes(first.start, first.tickAt(first.secondsAt(first.start) + LEAD_SECONDS));
    const led = state.led;
    state.led = null;
    state.feeder = startFeeder(
      first,
      SAMPLE_RATE,
      led ?? Math.round(now() + START_SECONDS * SAMPLE_RATE),
      first.start - state.countIn,
    );
    // What a leader's start came too late for is not made up for: it would only drag.
    if (led !== null) state.feeder.until = Math.max(led, Math.round(now() - MADE_UP_SECONDS * SAMPLE_RATE));
    state.countedAt = frameAt(state.feeder, first.start);
    const { frame } = state.feeder.anchor;
    hand(wake(state.feeder, now()));
    sayAnchor(frame);
  };

  const stop = () => {
    state.feeder = null;
    state.waiting = false;
    state.led = null;
    state.resume = null;
    state.armed = false;
    toMixer({ type: 'clock', on: false });
    toMixer({ type: 'silence' });
  };

  /** Another pattern begins; the one that plays goes on until then. */
  const switchPattern = (beat: Beat, patternId: string, at: SwitchTime) => {
    const { feeder } = state;
    state.beat = beat;
    state.patternId = patternId;
    state.song = null;
    beginRoutes();
    given.makeMissing();
    if (!feeder) return;
    hand(switchTo(feeder, plan(), now(), at, beatTicks(feeder.plan.meterAt(tickAt(feeder, now())))));
    if (!feeder.next) sayAnchor(feeder.begins);
  };

  /** The detour that the page's pattern has now, where that is another one than before and than the one that holds already. */
  const turnedTo = (before: Detour | null): Detour | null | undefined => {
    const [shown, holds] = [shownDetour(), state.switched.at(-1)?.detour ?? null];
    return isSameDetour(shown, before) || isSameDetour(shown, holds) ? undefined : shown;
  };

  const slotOf = (detour: Detour | null): Ticks => {
    const pattern = patternOf(state.beat!, state.patternId);
    const whole = detour?.over === 'all' ? patternTicks(pattern) : barTicks(pattern.meter);
    return whole / (detour?.route.length ?? 8);
  };

  const takeBeat = (beat: Beat, patternId: string, song: SongPlay | null) => {
    const another = state.beat?.id !== beat.id;
    const before = state.beat && !another ? shownDetour() : null;
    state.song = song;
    state.beat = beat;
    if (another) given.anotherBeat(beat);
    toMixer({ type: 'ceiling', level: ceilingOf(beat) });
    if (state.feeder?.next) {
      state.feeder.next.plan = plan();
      return;
    }
    const turns = !song && !another && patternId === state.patternId ? turnedTo(before) : undefined;
    if (patternId !== state.patternId || song) state.switched = [];
    state.patternId = patternId;
    given.makeMissing();
    if (!state.feeder) return;
    if (turns === undefined) handChanged(state.feeder, plan());
    else turnRoute(turns, slotOf(turns ?? before));
    sayAnchor(state.feeder.anchor.frame);
  };

  /** Sounds a lane in a kit once: as soon as its sound is there. */
  const strike = (kit: Kit, lane: Lane, velocity: number, pitch = 0) => {
    const key = soundKey(kit, lane);
    const now = () => {
      const sound = given.byKey(key);
      if (!sound) return;
      const stroke = { velocity, pitch, frame: 0, turn: state.struck++ };
      const notes = mixNotes(lane, { plan: prompt(sound.plan) }, sound.index, stroke, 0);
      toMixer({ type: 'strike', notes });
    };
    if (given.byKey(key)) now();
    else void given.make(kit, lane).then(now, () => undefined);
  };

  const strikeLane = (laneId: string, velocity: number, pitch?: number) => {
    const { beat } = state;
    const lane = beat?.lanes.find((one) => one.id === laneId);
    if (beat && lane) strike(beat, lane, velocity, pitch);
  };

  const fromMixer = (message: FromMixer): void => {
    if (message.type === 'report') return toPage(message);
    // It may have waited while sounds were made: what began by it then would begin late.
    const waited = message.at === undefined ? 0 : clamp(wall() - message.at, 0, MOST_WAITED);
    state.now = { frame: message.frame, at: clock() - waited };
    if (state.waiting) begin();
    else if (state.feeder) {
      const { until, next } = state.feeder;
      hand(wake(state.feeder, now()));
      if (next && !state.feeder.next) sayAnchor(state.feeder.begins);
      else if (state.song && state.feeder.until > until) sayAnchor(until);
    }
  };

  const fromPage = (message: Exclude<ToWorker, { type: 'connect' }>): void => {
    switch (message.type) {
      case 'beat':
        return takeBeat(message.beat, message.patternId, message.song ?? null);
      case 'switch':
        return switchPattern(message.beat, message.patternId, message.at);
      case 'metronome':
        state.metronome = message.metronome;
        if (state.feeder) handChanged(state.feeder, state.feeder.plan);
        return;
      case 'play':
        state.countIn = message.countIn;
        state.led = message.at ?? null;
        state.resume = message.resume ?? null;
        // The clock of a player that was made ready has been told lately.
        if (state.armed && state.now.at !== 0 && !state.resume) return begin();
        state.waiting = true;
        toMixer({ type: 'clock', on: true });
        return;
      case 'arm':
        state.armed = true;
        toMixer({ type: 'clock', on: true });
        return given.makeMissing();
      case 'tidy':
        return toMixer({ type: 'keep', sounds: given.numbers() });
      case 'stop':
        return stop();
      case 'route':
        return turnRoute(message.detour, message.every, message.asked);
      case 'align':
        if (!state.feeder || state.feeder.next) return;
        hand(realign(state.feeder, message, now()));
        return sayAnchor(state.feeder.anchor.frame);
      case 'prepare':
        return given.prepare(message.kit, message.instruments);
      case 'strike':
        return strikeLane(message.laneId, message.velocity, message.pitch);
      case 'own':
        return given.takeOwn(message);
      case 'hear':
        return strike(message.kit, message.lane, message.velocity, message.pitch);
      case 'report':
        // Before there is a mixer, nothing has been heard.
        if (state.mixer) toMixer({ type: 'report' });
        else toPage({ type: 'report', report: { late: 0, worst: 0, started: [] } });
    }
  };

  return {
    /**
     * The mixer is there: it gets all sounds that are made.
     *
     * @param base from which number on the mixer knows them
     * @param has what a player before this one gave to it
     */
    connect: (mixer: MixerPort, base = 0, has: readonly GivenSound[] = []): void => {
      state.mixer = mixer;
      given.connect(base, has);
      if (state.beat) toMixer({ type: 'ceiling', level: ceilingOf(state.beat) });
    },
    fromPage,
    fromMixer,
    /** Goes on where the audio thread does not wake it: a hidden page's audio may be paused with its clock. */
    wake: (): void => {
      if (state.feeder && tickAt(state.feeder, now()) >= 0) hand(wake(state.feeder, now()));
    },
  };
};
