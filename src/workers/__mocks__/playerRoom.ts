import { lanePatternOf, newBeat, newHit } from '../../../core/document/defaults';
import type { Beat } from '../../../core/document/schema';
import type { Layers } from '../../../core/samples/sounds';
import type { FromWorker, GivenSound, ToMixer } from '../../audio/messages';
import { SAMPLE_RATE } from '../../audio/timing';
import { createPlayer } from '../player';

/** A beat of one pattern whose kick falls on these steps. */
export const beatOf = (steps: number[], change: Partial<Beat> = {}): Beat => {
  const beat = { ...newBeat('b', 'Ferry', 7), tempo: 120, ...change };
  const [pattern] = beat.patterns;
  const kick = { ...lanePatternOf(pattern!, 'kick'), hits: steps.map((step) => newHit(step)) };
  return { ...beat, patterns: [{ ...pattern!, parts: { kick } }] };
};

/** A player with made-up ports: its page and mixer only write down what they hear. */
export const room = (load?: () => Promise<Layers>) => {
  const page: FromWorker[] = [];
  const mixer: ToMixer[] = [];
  const waiting: (() => void)[] = [];
  let ms = 1;
  /** How much time passes whenever the clock is looked at. */
  let passes = 0;
  const layers: Layers = [new Float32Array(4), new Float32Array(4), new Float32Array(4), new Float32Array(4)];
  const player = createPlayer({
    toPage: (message) => page.push(message),
    now: () => (ms += passes),
    wall: () => 5000 + ms,
    later: (work) => waiting.push(work),
    load: load ?? (() => Promise.resolve(layers)),
  });
  const settle = async () => {
    for (let turn = 0; turn < 300; turn++) {
      await Promise.resolve();
      waiting.splice(0).forEach((work) => work());
    }
  };
  /** A word of the audio clock; `waited` is how long it lay unheard, in ms. */
  const clock = (seconds: number, waited = 0) => {
    ms = 1 + seconds * 1000 + waited;
    player.fromMixer({ type: 'now', frame: seconds * SAMPLE_RATE, at: 5001 + seconds * 1000 });
  };
  const of = <T extends ToMixer['type']>(type: T) =>
    mixer.filter((message): message is Extract<ToMixer, { type: T }> => message.type === type);
  const handed = () => page.flatMap((message) => (message.type === 'handed' ? message.notes : []));
  // As in a browser: what is handed over is gone from where it came.
  const connect = (base?: number, has?: GivenSound[]) =>
    player.connect(
      { postMessage: (message, transfer) => mixer.push(structuredClone(message, { transfer })) },
      base,
      has,
    );
  const show = (beat: Beat) => player.fromPage({ type: 'beat', beat, patternId: beat.patterns[0]!.id });
  const takes = (each: number) => void (passes = each);
  const seconds = () => (ms - 1) / 1000;
  return { player, page, mixer, settle, clock, of, handed, connect, show, takes, seconds };
};

/** It plays, from 0.1 s of the audio clock on. */
export const play = async (one: ReturnType<typeof room>, beat: Beat) => {
  one.connect();
  one.show(beat);
  await one.settle();
  one.player.fromPage({ type: 'play', countIn: 0 });
  one.clock(0.1);
};
