import type { InstrumentId } from '../../core/document/instruments';
import type { Beat, Lane } from '../../core/document/schema';
import { CLICKS, makeClicks } from '../../core/mix/click';
import { ownOf } from '../../core/samples/own';
import {
  createSounds,
  isOwnKey,
  soundKey,
  type Kit,
  type LoadOwn,
  type LoadSound,
  type SoundingLane,
} from '../../core/samples/sounds';
import type { Sound, SoundPlan } from '../../core/samples/voiceSound';
import type { FromWorker, GivenSound, ToMixer, ToWorker } from '../audio/messages';
import { SAMPLE_RATE } from '../audio/timing';

/** Beyond so many sounds those that no lane asks for any more are dropped. */
const MOST_SOUNDS = 96;

/** What the keeper of the mixer's sounds is given. */
export interface GivenParts {
  toPage: (message: FromWorker) => void;
  toMixer: (message: ToMixer, transfer?: Transferable[]) => void;
  /** Goes on once the words that wait have been heard. */
  later: (work: () => void) => void;
  /** How a drum of a kit is come by; left out, it is synthesized. */
  load: LoadSound | undefined;
  /** The beat whose lanes want their sounds. */
  beat: () => Beat | null;
  /** All of them are there. */
  allThere: () => void;
  /** One that a lane waits for is there. */
  oneMore: () => void;
}

/** A sound that the mixer has, and how a stroke chooses among its buffers. */
export type Given = Pick<GivenSound, 'index' | 'plan'>;

/** The sounds that the mixer has: each under a number of its own, made when a lane needs it, one at a time. */
export const createGivenSounds = ({ toPage, toMixer, later, load, beat, allThere, oneMore }: GivenParts) => {
  /** By key. Those of a player before this one have no buffers here: only the mixer has them. */
  const given = new Map<string, Given & { buffers: Sound['buffers'] | null }>();
  /** The key of the sound that each lane had last: it sounds until the one that it is changed to is there. */
  const before = new Map<string, string>();
  /** Sounds to be made beforehand. */
  const soon = new Map<string, { kit: Kit; instrument: InstrumentId }>();
  /** From which number on the mixer knows what is made here. */
  let base = 0;
  let connected = false;
  let making = false;

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

  const keyOf = (lane: Lane): string => soundKey(beat()!, lane);

  /** The lanes whose sounds the mixer does not have yet. */
  const missing = (): Lane[] => beat()?.lanes.filter((lane) => !given.has(keyOf(lane))) ?? [];

  /** Copied here and handed over: copied on its way, it would hold up the audio thread. */
  const giveSound = (key: string, { index, plan }: Given, buffers: Sound['buffers']) => {
    if (!connected) return;
    const own = buffers.map((buffer) => buffer.slice());
    toMixer(
      { type: 'sound', index, layers: own },
      own.map(({ buffer }) => buffer),
    );
    toPage({ type: 'given', key, index, plan });
  };

  const giveClicks = () =>
    makeClicks(SAMPLE_RATE).forEach((layer, at) =>
      toMixer({ type: 'sound', index: CLICKS + at, layers: [layer] }),
    );

  /** Their memory is given back: a sound of one's own may be many minutes long. */
  const dropUnwanted = (kept: ReadonlySet<string>) => {
    for (const [key, { index }] of given)
      if (isOwnKey(key) && !kept.has(key)) {
        given.delete(key);
        toMixer({ type: 'sound', index, layers: [] });
        toPage({ type: 'given', key, index, plan: null });
      }
    sounds.forget(kept);
  };

  /** A slider that is dragged shapes a sound at every move; those that no lane asks for any more go. */
  const forgetShapes = () => {
    const one = beat();
    if (one && given.size >= MOST_SOUNDS)
      dropUnwanted(new Set([...one.lanes.map(keyOf), ...before.values()]));
  };

  /** Gives a sound a number of its own in the mixer. */
  const take = (key: string, { buffers, plan }: Sound) => {
    if (given.has(key)) return;
    forgetShapes();
    const used = new Set([...given.values()].map(({ index }) => index));
    let index = base;
    while (used.has(index)) index += 1;
    given.set(key, { index, plan, buffers });
    giveSound(key, { index, plan }, buffers);
  };

  const make = async (kit: Kit, lane: SoundingLane): Promise<void> =>
    take(soundKey(kit, lane), await sounds.soundsFor(kit, lane));

  /** Sounds of one's own are worked out elsewhere, by several at a time: all are asked for at once. */
  const asking = new Set<string>();
  const askForOwn = () => {
    for (const lane of missing()) {
      const key = keyOf(lane);
      if (asking.has(key) || !ownOf(beat()!, lane)) continue;
      asking.add(key);
      void sounds
        .soundsFor(beat()!, lane)
        .catch(() => undefined)
        .finally(() => asking.delete(key));
    }
  };

  /** One sound at a time, so that a word from the page or the audio thread is never kept waiting long. */
  const makeNext = (): void => {
    askForOwn();
    const [lane] = missing();
    const ahead = [...soon].find(([key]) => !given.has(key))?.[1];
    making = Boolean(lane ?? ahead);
    if (!lane) allThere();
    const made = lane ? make(beat()!, lane) : ahead ? make(ahead.kit, ahead) : null;
    void made?.then(
      () => {
        if (lane) oneMore();
        later(makeNext);
      },
      // What cannot be made now is asked for again with the next word of the page.
      () => (making = false),
    );
  };

  const makeMissing = () => {
    if (!making) makeNext();
  };

  return {
    missing,
    make,
    makeMissing,
    takeOwn,
    /** Has drums of a kit made before a lane asks for them. */
    prepare: (kit: Kit, instruments: readonly InstrumentId[]): void => {
      for (const instrument of instruments) soon.set(soundKey(kit, { instrument }), { kit, instrument });
      makeMissing();
    },
    /** Under what the mixer has a sound, where it has it. */
    byKey: (key: string): Given | undefined => given.get(key),
    /** A lane's sound; while that is being made, the one that it had before. */
    soundOf: (lane: Lane): Given | undefined => {
      const key = keyOf(lane);
      const there = given.get(key);
      if (there) before.set(lane.id, key);
      return there ?? given.get(before.get(lane.id) ?? '');
    },
    /** Another beat is played: what only the one before it asked for goes. */
    anotherBeat: ({ lanes }: Beat): void => {
      before.clear();
      dropUnwanted(new Set(lanes.map(keyOf)));
    },
    /**
     * A mixer is there: it gets all sounds that are made.
     *
     * @param from the first number of those that are made from now on, where none has been made yet
     * @param has what it was given by a player before this one: that sounds at once, and is not made again
     */
    connect: (from: number, has: readonly GivenSound[]): void => {
      connected = true;
      // Another mixer has nothing of what only the one before it had.
      for (const [key, { buffers }] of given) if (!buffers) given.delete(key);
      if (!given.size) base = from;
      for (const { key, index, plan } of has)
        if (!given.has(key)) given.set(key, { index, plan, buffers: null });
      giveClicks();
      for (const [key, one] of given) if (one.buffers) giveSound(key, one, one.buffers);
      makeMissing();
    },
    /** The numbers that are in use. */
    numbers: (): number[] => [...given.values()].map(({ index }) => index),
  };
};

/** Without what leads up to the strokes: struck by hand, it is heard at once. */
export const prompt = (plan: SoundPlan): SoundPlan =>
  plan.layers.every(({ lead }) => !lead)
    ? plan
    : { ...plan, layers: plan.layers.map((layer) => ({ ...layer, lead: 0 })) };
