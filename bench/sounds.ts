/** How well hits and tempos of loops are found, and what sounds of one's own cost. */
import { newBeat, newLane } from '../core/document/defaults';
import { grooveToBeat } from '../core/groove/grooveToBeat';
import type { Groove } from '../core/groove/groove';
import { builtInGrooves } from '../core/groove/library';
import { allNotes } from '../core/play/driver';
import { planPasses } from '../core/play/timelinePlan';
import { decodeAudio } from '../core/samples/decode';
import { KIT_LIST } from '../core/synthesis/kitList';
import { bpmOf, loopTempos } from '../core/samples/loopTempo';
import { createMixer, mix, replan } from '../core/mix/mixer';
import { mixed, mixNotes } from '../core/mix/mixNotes';
import { onsetsOf } from '../core/samples/onsets';
import { renderVoice } from '../core/samples/renderVoice';
import { sampleSecondsOf, type Audio } from '../core/samples/sample';
import { soundShapeOf } from '../core/samples/shape';
import { createSounds, soundsOfBeat } from '../core/samples/sounds';
import { wavOf } from '../core/files/wav';
import { median, quantile, report } from './report';

const RATE = 44100;
const LOOPS = Number(process.env['LOOPS'] ?? 150);

/** The n-th of numbers that are spread evenly from 0 up to 1. */
const spread = (n: number, which: number): number =>
  (Math.imul(n * 7919 + which * 104729 + 1, 2654435761) >>> 0) / 2 ** 32;

interface Rendered {
  audio: Audio;
  times: number[];
  bars: number;
  tempo: number;
  quarters: number;
}

const MAINS = builtInGrooves().filter(({ kind, bars }) => kind !== 'fill' && kind !== 'ending' && bars <= 8);

/** A groove of the library on one of the kits, at a tempo from 80 to 170, as audio, with where each stroke is. */
const rendered = async (n: number): Promise<Rendered> => {
  const groove: Groove = MAINS[Math.floor(spread(n, 1) * MAINS.length)]!;
  const tempo = Math.round(80 + spread(n, 2) * 90);
  const kit = KIT_LIST[n % KIT_LIST.length]!.id;
  const beat = { ...grooveToBeat(groove, newBeat('b', 'Loop', 7), { tempo, kit, once: false }), kit };
  const plan = planPasses(beat, beat.patterns[0]!, 1);
  const notes = allNotes(plan, 'wrap');
  const sounds = await soundsOfBeat(createSounds(RATE), beat);
  const mixer = createMixer(RATE);
  beat.lanes.forEach((_, at) => (mixer.sounds[at] = sounds[at]!.buffers));
  const seconds = (tick: number) => (tick * 60) / (960 * tempo);
  const frames = Math.round(seconds(plan.timeline.length) * RATE);
  const all = notes.flatMap((note) =>
    mixed(beat, note, sounds[note.lane]!, note.lane, Math.round(seconds(note.tick) * RATE)),
  );
  replan(
    mixer,
    0,
    all.sort((a, b) => a.frame - b.frame),
  );
  const [left, right] = [new Float32Array(frames), new Float32Array(frames)];
  mix(mixer, left, right, 0);
  const { beats, unit } = beat.patterns[0]!.meter;
  return {
    audio: { rate: RATE, channels: [left, right] },
    times: [...new Set(notes.map(({ tick }) => seconds(tick)))].sort((a, b) => a - b),
    bars: beat.patterns[0]!.bars,
    tempo,
    quarters: (4 * beats) / unit,
  };
};

const ALONE = 0.06;
const NEAR = 0.01;
/** A mark belongs to a stroke that is so near. */
const BELONGS = 0.025;

const loops = async (): Promise<void> => {
  const off: number[] = [];
  let [alone, wrong, marks, ms, seconds, tempos, right] = [0, 0, 0, 0, 0, 0, 0];
  for (let n = 0; n < LOOPS; n++) {
    const loop = await rendered(n);
    const begun = performance.now();
    const found = onsetsOf(loop.audio);
    ms += performance.now() - begun;
    seconds += sampleSecondsOf(loop.audio);
    loop.times.forEach((time, at) => {
      const apart = Math.min(time - (loop.times[at - 1] ?? -1), (loop.times[at + 1] ?? Infinity) - time);
      if (apart < ALONE) return;
      alone += 1;
      off.push(Math.min(...found.map((one) => Math.abs(one.at - time))));
    });
    marks += found.length;
    wrong += found.filter((one) => !loop.times.some((time) => Math.abs(one.at - time) <= BELONGS)).length;
    if (loop.quarters !== 4 || ![1, 2, 4, 8].includes(loop.bars)) continue;
    tempos += 1;
    if (Math.abs(loopTempos(found, sampleSecondsOf(loop.audio))[0]!.bpm - loop.tempo) < 0.1) right += 1;
    if (Math.abs(bpmOf(sampleSecondsOf(loop.audio), loop.bars) - loop.tempo) >= 0.1)
      throw new Error('a loop too long');
  }
  const met = off.filter((one) => one <= NEAR);
  const share = met.length / alone;
  report(
    `strokes that stand alone, found within 10 ms (${alone} in ${LOOPS} loops)`,
    `${(100 * share).toFixed(1)} %`,
    '95 %',
    share >= 0.95,
  );
  report(
    `marks where there is no stroke (of ${marks})`,
    `${((100 * wrong) / marks).toFixed(1)} %`,
    '5 %',
    wrong / marks <= 0.05,
  );
  report('the median mark is off by', `${(1000 * median(met)).toFixed(2)} ms`, '3 ms', median(met) <= 0.003);
  report(
    `tempo guessed right to 0.1 BPM (${tempos} loops)`,
    `${((100 * right) / tempos).toFixed(1)} %`,
    '85 %',
    right / tempos >= 0.85,
  );
  report(
    'finding hits, for a second of audio',
    `${(ms / seconds).toFixed(1)} ms`,
    '50 ms',
    ms / seconds < 50,
  );
};

const BLOCK = 128;
const VOICES = 32;

/** So many voices at once, each with a filter and drive, in blocks as the audio thread has them. */
const voices = async (): Promise<void> => {
  const tone = wavOf(
    [Float32Array.from({ length: 20 * 48000 }, (_, at) => 0.4 * Math.sin(at * 0.05))],
    48000,
    16,
  );
  const decoded = await decodeAudio(tone, 'tone.wav');
  if (!decoded.ok) throw new Error(decoded.error);
  const sound = (await renderVoice(
    {
      choose: 'velocity',
      layers: [
        {
          source: { sample: { id: 'a'.repeat(64), file: 'tone.wav', seconds: 20 } },
          low: 1,
          high: 127,
          drive: 4,
          filter: { pass: 'low', hertz: 2000, slope: 24, follow: 2 },
        },
      ],
    },
    soundShapeOf({}),
    48000,
    () => Promise.resolve(decoded.audio),
  ))!;
  const mixer = createMixer(48000);
  mixer.sounds[0] = sound.buffers;
  replan(
    mixer,
    0,
    Array.from({ length: VOICES }, (_, at) =>
      mixNotes(
        newLane(`l${at}`, 'tom.low'),
        sound,
        0,
        { velocity: 40 + at, pitch: at % 5, frame: at, turn: 0 },
        1,
      ),
    ).flat(),
  );
  const [left, right] = [new Float32Array(BLOCK), new Float32Array(BLOCK)];
  const times: number[] = [];
  for (let block = 0; block < 4000; block++) {
    const begun = performance.now();
    mix(mixer, left, right, block * BLOCK);
    times.push(performance.now() - begun);
  }
  const lasts = (BLOCK / 48000) * 1000;
  const usual = median(times.slice(500));
  const slow = quantile(times.slice(500), 0.99);
  report(
    `${mixer.voices.length} voices in the audio thread, of a block's time (99 %: ${((100 * slow) / lasts).toFixed(1)} %)`,
    `${((100 * usual) / lasts).toFixed(1)} %`,
    '30 %',
    usual / lasts < 0.3,
  );
};

/** 40 MB of samples, decoded and made ready at another rate. */
const large = async (): Promise<void> => {
  const seconds = 40_000_000 / (44100 * 2 * 2) / 8;
  const one = wavOf(
    [0, 1].map(() =>
      Float32Array.from({ length: Math.round(seconds * 44100) }, (_, at) => Math.sin(at * 0.01) / 2),
    ),
    44100,
    16,
  );
  const times: number[] = [];
  for (let n = 0; n < 8; n++) {
    const begun = performance.now();
    const decoded = await decodeAudio(one, 'long.wav');
    if (!decoded.ok) throw new Error(decoded.error);
    await renderVoice(
      {
        choose: 'velocity',
        layers: [
          { source: { sample: { id: 'a'.repeat(64), file: 'long.wav', seconds } }, low: 1, high: 127 },
        ],
      },
      soundShapeOf({}),
      48000,
      () => Promise.resolve(decoded.audio),
    );
    times.push(performance.now() - begun);
  }
  const all = times.reduce((sum, ms) => sum + ms, 0);
  report(
    '8 samples of 5 MB made ready, the first of them',
    `${times[0]!.toFixed(0)} ms`,
    '300 ms',
    times[0]! < 300,
  );
  report('8 samples of 5 MB made ready, all of them', `${all.toFixed(0)} ms`, '1000 ms', all < 1000);
};

void (async () => {
  await voices();
  await large();
  await loops();
})();
