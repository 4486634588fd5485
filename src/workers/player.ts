import { barTicks, beatTicks } from '../../core/document/meter';
import type { InstrumentId } from '../../core/document/instruments';
import { patternOf, patternTicks } from '../../core/document/defaults';
import type { Beat, Detour, Lane } from '../../core/document/schema';
import type { Switched } from '../../core/play/moves/detours';
import { playable, type Playable } from '../../core/play/playable';
import { planLive, planSong } from '../../core/play/timelinePlan';
import { clickNotes, CLICKS, makeClicks } from '../../core/sound/click';
import { ceilingOf, type MixNote } from '../../core/sound/mixer';
import { mixed, mixNotes } from '../../core/sound/mixNotes';
import { ownOf } from '../../core/sound/own';
import {
  createSounds,
  isOwnKey,
  soundKey,
  type Kit,
  type LoadOwn,
  type LoadSound,
  type Sounds,
} from '../../core/sound/sounds';
import type { Sound, SoundPlan } from '../../core/sound/voiceSound';
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
  type SwitchAt,
  type Batch,
  type Feeder,
} from '../audio/feeder';
import { SOUNDS_EACH } from '../audio/messages';
import type {
  FromMixer,
  FromWorker,
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

/** Beyond so many sounds those that no lane asks for any more are dropped. */
const MOST_SOUNDS = 96;

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

/** A sound that the mixer has, under a number of its own. */
interface Given {
  index: number;
  sound: Sound;
}

interface State {
  beat: Beat | null;
  patternId: string;
  /** Null where a pattern plays by itself. */
  song: SongPlay | null;
  mixer: MixerPort | null;
  /** The number under which the mixer has each sound, by its key. */
  given: Map<string, Given>;
  /** The key of the sound that each lane had last: it sounds until the one that it is changed to is there. */
  before: Map<string, string>;
  feeder: Feeder | null;
  /** Play was asked for before all was there. */
  waiting: boolean;
  /** Where another clock leads: the frame at which what begins stands at its start. */
  led: Frames | null;
  /** Where play goes on, when this player takes another one's place. */
  resume: Resume | null;
  /** From which number on the mixer knows its sounds. */
  base: number;
  /** The audio clock is told though nothing plays: play may be asked for at any time. */
  armed: boolean;
  now: { frame: number; at: number };
  /** How long the last changes took from their beginning to the mixer's port, in frames. */
  cost: Frames;
  making: boolean;
  /** Sounds to be made beforehand. */
  soon: Map<string, { kit: Kit; instrument: InstrumentId }>;
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
  given: new Map(),
  before: new Map(),
  feeder: null,
  waiting: false,
  led: null,
  resume: null,
  base: 0,
  armed: false,
  now: { frame: 0, at: 0 },
  cost: 0,
  making: false,
  soon: new Map(),
  metronome: { on: false, level: 0.6, accent: true },
  countIn: 0,
  countedAt: 0,
  struck: 0,
  switched: [],
});

/** Without what leads up to the strokes. */
const prompt = (plan: SoundPlan): SoundPlan =>
  plan.layers.every(({ lead }) => !lead)
    ? plan
    : { ...plan, layers: plan.layers.map((layer) => ({ ...layer, lead: 0 })) };

/**
 * Feeds the mixer: takes the page's words, plans notes ahead of the audio clock, and has the sounds made that they need. It
 * is woken by the audio thread, so that nothing the page does makes a note late.
 */
export const createPlayer = ({ toPage, now: clock, wall = Date.now, later, load }: PlayerParts) => {
  const state = atFirst();
  const toMixer = (message: ToMixer, transfer: Transferable[] = []) =>
    state.mixer?.postMessage(message, transfer);
  const now = () => state.now.frame + ((clock() - state.now.at) * SAMPLE_RATE) / 1000;
  /** Sounds of one's own are worked out elsewhere: what was asked for and has not come yet, by its number. */
  const wanted = new Map<number, { give: (sound: Sound | null) => void; fail: (fault: Error) => void }>();
  let asked = 0;
  const loadOwn: LoadOwn = (own, shape, rate) =>
    new Promise((give, fail) => {
      asked += 1;
      wanted.set(asked, { give, fail });
      toPage({ type: 'want', name: asked, own, shape, rate });
    });
  const takeOwn = (answer: Extract<ToWorker, { type: 'own' }>) => {
    const one = wanted.get(answer.name);
    wanted.delete(answer.name);
    if ('failed' in answer) one?.fail(new Error('failed'));
    else one?.give(answer.sound);
  };
  const sounds = createSounds(SAMPLE_RATE, load, loadOwn);
  const keyOf = (lane: Lane): string => soundKey(state.beat!, lane);

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

  /** The lanes whose sounds the mixer does not have yet. */
  const missing = (): Lane[] => state.beat?.lanes.filter((lane) => !state.given.has(keyOf(lane))) ?? [];

  /** Copied here and handed over: copied on its way, it would hold up the audio thread. */
  const giveSound = ({ index, sound }: Given) => {
    const own = sound.buffers.map((buffer) => buffer.slice());
    toMixer(
      { type: 'sound', index, layers: own },
      own.map(({ buffer }) => buffer),
    );
  };

  const giveClicks = () =>
    makeClicks(SAMPLE_RATE).forEach((layer, at) =>
      toMixer({ type: 'sound', index: CLICKS + at, layers: [layer] }),
    );

  /** A slider that is dragged shapes a sound at every move; those that no lane asks for any more go. */
  const forgetShapes = () => {
    if (!state.beat || state.given.size < MOST_SOUNDS) return;
    dropUnwanted(new Set([...state.beat.lanes.map(keyOf), ...state.before.values()]));
  };

  /** Their memory is given back: a sound of one's own may be many minutes long. */
  const dropUnwanted = (wanted: ReadonlySet<string>) => {
    for (const [key, { index }] of state.given)
      if (isOwnKey(key) && !wanted.has(key)) {
        state.given.delete(key);
        toMixer({ type: 'sound', index, layers: [] });
      }
    sounds.forget(wanted);
  };

  /** Gives a sound a number of its own in the mixer. */
  const take = (key: string, sound: Sound) => {
    if (state.given.has(key)) return;
    forgetShapes();
    const used = new Set([...state.given.values()].map(({ index }) => index));
    let index = state.base;
    while (used.has(index)) index += 1;
    const given = { index, sound };
    state.given.set(key, given);
    giveSound(given);
  };

  const make = async (kit: Kit, lane: Parameters<Sounds['soundsFor']>[1]): Promise<void> =>
    take(soundKey(kit, lane), await sounds.soundsFor(kit, lane));

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

  /** Sounds of one's own are worked out elsewhere, by several at a time: all are asked for at once. */
  const asking = new Set<string>();
  const askForOwn = () => {
    for (const lane of missing()) {
      const key = keyOf(lane);
      if (asking.has(key) || !ownOf(state.beat!, lane)) continue;
      asking.add(key);
      void sounds
        .soundsFor(state.beat!, lane)
        .catch(() => undefined)
        .finally(() => asking.delete(key));
    }
  };

  /** One sound at a time, so that a word from the page or the audio thread is never kept waiting long. */
  const makeSounds = (): void => {
    askForOwn();
    const [lane] = missing();
    const ahead = [...state.soon].find(([key]) => !state.given.has(key))?.[1];
    state.making = Boolean(lane ?? ahead);
    if (state.waiting && !lane) begin();
    const made = lane ? make(state.beat!, lane) : ahead ? make(ahead.kit, ahead) : null;
    void made?.then(
      () => {
        // What was handed over before it was there is handed over with it.
        if (lane && state.feeder) handChanged(state.feeder, state.feeder.plan);
        later(makeSounds);
      },
      // What cannot be made now is asked for again with the next word of the page.
      () => (state.making = false),
    );
  };

  /** A lane's sound; while that is being made, the one that it had before. */
  const soundOf = (lane: Lane): Given | undefined => {
    const key = keyOf(lane);
    const given = state.given.get(key);
    if (given) state.before.set(lane.id, key);
    return given ?? state.given.get(state.before.get(lane.id) ?? '');
  };

  const hand = (batch: Batch | null) => {
    const { beat } = state;
    if (!batch || !beat) return;
    const notes = batch.notes.flatMap((note) => {
      const given = soundOf(beat.lanes[note.lane]!);
      if (!given) return [];
      const { index, sound } = given;
      const lasts = note.cut || sound.plan.held ? framesOf(state.feeder!, note.tick, note.length) : 0;
      return mixed(beat, note, sound, index, note.frame, state.countedAt).map((one) => ({
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
    if (!state.beat || !state.mixer || state.now.at === 0 || missing().length) {
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

  const makeWhatIsMissing = () => {
    if (!state.making) makeSounds();
  };

  /** Another pattern begins; the one that plays goes on until then. */
  const switchPattern = (beat: Beat, patternId: string, at: SwitchAt) => {
    const { feeder } = state;
    state.beat = beat;
    state.patternId = patternId;
    state.song = null;
    beginRoutes();
    makeWhatIsMissing();
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
    if (another) {
      state.before.clear();
      dropUnwanted(new Set(beat.lanes.map(keyOf)));
    }
    toMixer({ type: 'ceiling', level: ceilingOf(beat) });
    if (state.feeder?.next) {
      state.feeder.next.plan = plan();
      return;
    }
    const turns = !song && !another && patternId === state.patternId ? turnedTo(before) : undefined;
    if (patternId !== state.patternId || song) state.switched = [];
    state.patternId = patternId;
    makeWhatIsMissing();
    if (!state.feeder) return;
    if (turns === undefined) handChanged(state.feeder, plan());
    else turnRoute(turns, slotOf(turns ?? before));
    sayAnchor(state.feeder.anchor.frame);
  };

  /** Sounds a lane in a kit once: as soon as its sound is there. */
  const strike = (kit: Kit, lane: Lane, velocity: number, pitch = 0) => {
    const key = soundKey(kit, lane);
    const now = () => {
      const given = state.given.get(key);
      if (!given) return;
      // Struck by hand it is heard at once, whatever leads up to its attack.
      const stroke = { velocity, pitch, frame: 0, turn: state.struck++ };
      const notes = mixNotes(
        lane,
        { ...given.sound, plan: prompt(given.sound.plan) },
        given.index,
        stroke,
        0,
      );
      toMixer({ type: 'strike', notes });
    };
    if (state.given.has(key)) now();
    else void make(kit, lane).then(now, () => undefined);
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
        return makeWhatIsMissing();
      case 'tidy':
        return toMixer({ type: 'keep', from: state.base, below: state.base + SOUNDS_EACH });
      case 'stop':
        return stop();
      case 'route':
        return turnRoute(message.detour, message.every, message.asked);
      case 'align':
        if (!state.feeder || state.feeder.next) return;
        hand(realign(state.feeder, message, now()));
        return sayAnchor(state.feeder.anchor.frame);
      case 'prepare':
        for (const instrument of message.instruments)
          state.soon.set(soundKey(message.kit, { instrument }), { kit: message.kit, instrument });
        return makeWhatIsMissing();
      case 'strike':
        return strikeLane(message.laneId, message.velocity, message.pitch);
      case 'own':
        return takeOwn(message);
      case 'hear':
        return strike(message.kit, message.lane, message.velocity, message.pitch);
      case 'report':
        // Before there is a mixer, nothing has been heard.
        if (state.mixer) toMixer({ type: 'report' });
        else toPage({ type: 'report', report: { late: 0, worst: 0, started: [] } });
    }
  };

  return {
    /** The mixer is there: it gets all sounds that are made. */
    connect: (mixer: MixerPort, base = 0): void => {
      state.mixer = mixer;
      // Sounds that it has made by then keep their numbers.
      if (!state.given.size) state.base = base;
      giveClicks();
      state.given.forEach(giveSound);
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
