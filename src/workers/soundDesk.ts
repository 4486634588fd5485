import type { Beat, Lane, Layer, Loop, OwnKit, Sample, Voice } from '../../core/document/schema';
import type { InstrumentId } from '../../core/document/instruments';
import type { ReadBeats } from '../../core/document/file';
import { readBeatsWithSounds, writeBeatsWithSounds } from '../../core/files/beatFile';
import { leadsOf, type Leads } from '../../core/mix/leads';
import { decodeAudio } from '../../core/samples/decode';
import { fitting, type DrumFigures } from '../../core/samples/fitting';
import { kitOf, standIn } from '../../core/synthesis/kits';
import { KIT_LIST } from '../../core/synthesis/kitList';
import { makeSound } from '../../core/synthesis/layers';
import { SHIPPED_LIST } from '../../core/samples/shippedList';
import { renderShipped } from '../../core/mix/shippedLoops';
import { centroidOf, ringOf, spectrumOf } from '../../core/synthesis/spectrum';
import { readKit, samplesOf, writeKit, type KitOnKit } from '../../core/files/kitFile';
import { loopTempos, type LoopTempo, type TempoHints } from '../../core/samples/loopTempo';
import { sliceFiles } from '../../core/files/sliceFiles';
import { onsetsOf, type Onset } from '../../core/samples/onsets';
import type { OwnLayers } from '../../core/samples/own';
import { attackOf, sampleSecondsOf, toMono, type Audio } from '../../core/samples/sample';
import { soundShapeOf, type SoundShape } from '../../core/samples/shape';
import { sliceKinds, type SliceKind } from '../../core/samples/sliceKinds';
import { createSounds } from '../../core/samples/sounds';
import { strikeOf } from '../../core/mix/strike';
import type { Sound } from '../../core/samples/voiceSound';
import { wavOf } from '../../core/files/wav';
import type { Seconds } from '../../core/units';
import { bytesName, type BytesStore } from '../keeping/indexedBytes';
import { words } from '../words/sounds';
import { createSamples, ownSound } from './ownSounds';

/** A file as it was dropped or chosen. */
export interface SoundFile {
  name: string;
  bytes: Uint8Array;
}

/** What became of files: samples that are kept, and a sentence for each that could not be, or is not whole. */
export interface SoundTakenIn {
  samples: Sample[];
  said: string[];
}

/** A wave as it is drawn: the lowest and the highest of each column, -1 to 1. */
export interface Wave {
  low: number[];
  high: number[];
  seconds: Seconds;
  /** Where its attack is. */
  attack: Seconds;
}

/** What is found in a loop. */
export interface LoopFound {
  onsets: Onset[];
  tempos: LoopTempo[];
  seconds: Seconds;
}

/** What came of a kit file. */
export type KitOpened = { ok: true; kit: string; own: OwnKit; said: string[] } | { ok: false; error: string };

/** What came of a file of beats with their sounds. @see ReadBeats for those that could be read, and the others */
export type BeatsOpened = { ok: true; value: ReadBeats; missing: string[] } | { ok: false; error: string };

const COLUMNS = 1200;
const RATE = 48000;

/** Audio as columns. @param gain what it is drawn larger by */
export const deskWaveOf = ({ rate, channels }: Audio, columns = COLUMNS): Wave => {
  const data = toMono({ channels });
  const count = Math.min(columns, Math.max(1, data.length));
  const low = new Array<number>(count).fill(0);
  const high = new Array<number>(count).fill(0);
  for (let column = 0; column < count; column++) {
    const end = Math.floor(((column + 1) * data.length) / count);
    for (let at = Math.floor((column * data.length) / count); at < end; at++) {
      low[column] = Math.min(low[column]!, data[at]!);
      high[column] = Math.max(high[column]!, data[at]!);
    }
  }
  return { low, high, seconds: data.length / rate, attack: attackOf(channels, rate) / rate };
};

const full = (fault: unknown): boolean => fault instanceof Error && fault.name === 'QuotaExceededError';

const FIGURES = new Map<string, DrumFigures>();
/** More than this would take long to measure, and changes little. */
const MOST_BESIDE = 5;

const figuresOf = (kit: string, instrument: InstrumentId): DrumFigures => {
  const name = `${kit}/${instrument}`;
  const known = FIGURES.get(name);
  if (known) return known;
  const there = kitOf(kit);
  const data = makeSound(there, standIn(there, instrument), RATE).layers.at(-1)!;
  const mean = Math.sqrt(data.reduce((sum, x) => sum + x * x, 0) / Math.max(1, data.length));
  const made: DrumFigures = {
    kit,
    instrument,
    ring: ringOf(data, RATE, 40),
    centroid: centroidOf(spectrumOf(data, RATE, 0, 1)),
    level: 20 * Math.log10(Math.max(1e-6, mean)),
  };
  FIGURES.set(name, made);
  return made;
};

/**
 * All that is done with sounds of one's own, beside the page.
 *
 * @param store where samples are kept
 */
export const createDesk = (store: BytesStore) => {
  const load = createSamples(store);

  const kept = async (files: { file: string; bytes: Uint8Array; audio: Audio }[]): Promise<Sample[]> => {
    const names = await store.put(files.map(({ bytes }) => bytes));
    return files.map(({ file, audio }, at) => ({
      id: names[at]!,
      // One whose name is blank has to be called something.
      file: file.trim().slice(0, 120).trim() || words.sound,
      seconds: sampleSecondsOf(audio),
    }));
  };

  const bytesOf = async (samples: Sample[]): Promise<Map<string, Uint8Array>> => {
    const bytes = new Map<string, Uint8Array>();
    for (const { id } of samples) {
      const there = await store.get(id);
      if (there) bytes.set(id, there);
    }
    return bytes;
  };

  const soundsNow = () =>
    createSounds(RATE, undefined, (own, shape, rate) => ownSound(own, shape, rate, load));

  /** Keeps samples as they came; a sentence where that fails, and none of them is kept then. */
  const keptAll = async (samples: ReadonlyMap<string, Uint8Array>): Promise<string | null> => {
    try {
      if (samples.size) await store.put([...samples.values()]);
      return null;
    } catch (fault) {
      return full(fault) ? words.noRoom : words.notKept;
    }
  };

  return {
    ownSound: (own: OwnLayers, shape: SoundShape, rate: number): Promise<Sound | null> =>
      ownSound(own, shape, rate, load),

    /** Decodes files and keeps those that can be used, all of them or none. */
    takeIn: async (files: SoundFile[]): Promise<SoundTakenIn> => {
      const said: string[] = [];
      const good: { file: string; bytes: Uint8Array; audio: Audio }[] = [];
      for (const { name, bytes } of files) {
        const decoded = await decodeAudio(bytes, name);
        if (!decoded.ok) said.push(decoded.error);
        else {
          if (decoded.warning) said.push(decoded.warning);
          good.push({ file: name, bytes, audio: decoded.audio });
        }
      }
      try {
        return { samples: good.length ? await kept(good) : [], said };
      } catch (fault) {
        return { samples: [], said: [...said, full(fault) ? words.noRoom : words.notKept] };
      }
    },

    /** Renders a loop that ships and keeps it as any other; null where there is none of that id. */
    shippedLoop: async (id: string): Promise<SoundTakenIn | null> => {
      const loop = SHIPPED_LIST.find((one) => one.id === id);
      if (!loop) return null;
      const audio = await renderShipped(loop, RATE);
      const bytes = wavOf(audio.channels, RATE, 24);
      try {
        return { samples: await kept([{ file: `${loop.name}.wav`, bytes, audio }]), said: [] };
      } catch (fault) {
        return { samples: [], said: [full(fault) ? words.noRoom : words.notKept] };
      }
    },

    /** Drums of one instrument from all kits, the one that fits what plays beside it first. */
    fitting: (instrument: InstrumentId, kit: string, others: InstrumentId[]): DrumFigures[] => {
      const beside = others.filter((id) => id !== instrument).slice(0, MOST_BESIDE);
      const ids = [...new Set([instrument, ...beside])];
      const all = KIT_LIST.flatMap(({ id }) => ids.map((drum) => figuresOf(id, drum)));
      const there = all.filter((one) => one.kit === kit && one.instrument !== instrument);
      return fitting(all, instrument, there);
    },

    /** Which samples are not there. */
    missing: async (ids: string[]): Promise<string[]> => {
      const there = await store.has(ids);
      return ids.filter((_, at) => !there[at]);
    },

    /** A sample as it came; null where it is missing. */
    wave: async (id: string): Promise<Wave | null> => {
      const audio = await load(id);
      return audio && deskWaveOf(audio);
    },

    /** What is found in a loop; null where its sample is missing. */
    found: async (
      id: string,
      sensitivity: number,
      quarters: number,
      hints?: TempoHints,
    ): Promise<LoopFound | null> => {
      const audio = await load(id);
      if (!audio) return null;
      const onsets = onsetsOf(audio, sensitivity);
      const seconds = sampleSecondsOf(audio);
      return { onsets, tempos: loopTempos(onsets, seconds, quarters, hints), seconds };
    },

    /** What the slices of a loop are like; null where its sample is missing. */
    kinds: async ({ sample, marks, end }: Loop): Promise<SliceKind[] | null> => {
      const audio = await load(sample.id);
      return audio && sliceKinds(audio, { marks, end });
    },

    /** A kit with its samples as one file. */
    saveKit: async (kit: KitOnKit): Promise<Uint8Array> => writeKit(kit, await bytesOf(samplesOf(kit.own))),

    /** Opens a kit file and keeps its samples, all of them or none. */
    openKit: async (bytes: Uint8Array): Promise<KitOpened> => {
      const read = await readKit(bytes, bytesName);
      if (!read.ok) return read;
      const { kit, own, samples, missing } = read.value;
      const refused = await keptAll(samples);
      return refused
        ? { ok: false, error: refused }
        : { ok: true, kit, own, said: missing.map(words.missing) };
    },

    /** Beats with their sounds as one file. */
    saveBeats: async (text: string, samples: Sample[]): Promise<Uint8Array> =>
      writeBeatsWithSounds(text, samples, await bytesOf(samples)),

    /** Opens a file of beats with their sounds and keeps the samples, all of them or none. */
    openBeats: async (bytes: Uint8Array): Promise<BeatsOpened> => {
      const read = await readBeatsWithSounds(bytes, bytesName);
      if (!read.ok) return read;
      const { samples, missing, beats, faults } = read.value;
      const refused = await keptAll(samples);
      return refused ? { ok: false, error: refused } : { ok: true, value: { beats, faults }, missing };
    },

    /** How long before their strokes a beat's own sounds begin. */
    leads: (beat: Pick<Beat, 'kit' | 'own' | 'lanes'>): Promise<Leads> => leadsOf(soundsNow(), beat),

    /** One strike of a lane as a WAV. */
    strike: async (kit: KitOnKit, lane: Lane, velocity: number): Promise<Uint8Array> => {
      const given = { kit: kit.kit, own: kit.own };
      const { channels } = strikeOf(lane, await soundsNow().soundsFor(given, lane), velocity, RATE);
      return wavOf(channels, RATE, 24);
    },

    /** The slices of a loop as WAVs; null where its sample is missing. */
    slices: async ({ sample, marks, end }: Loop): Promise<Uint8Array[] | null> => {
      const audio = await load(sample.id);
      if (!audio) return null;
      return sliceFiles(audio, { marks, end });
    },

    /** How a layer looks as it is heard, struck hard; null where its sample is missing. */
    shaped: async (layer: Layer): Promise<Wave | null> => {
      const voice: Voice = { choose: 'velocity', layers: [layer] };
      const sound = await ownSound({ voice }, soundShapeOf({}), RATE, load);
      const planned = sound?.plan.layers[0];
      if (!sound || !planned) return null;
      const { first, forces, strikes, sides } = planned;
      const at = first + (forces - 1) * strikes * sides;
      return deskWaveOf({ rate: RATE, channels: sound.buffers.slice(at, at + sides) });
    },
  };
};

export type Desk = ReturnType<typeof createDesk>;
