import { spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { unzipSync } from 'fflate';
import { decodeAudio } from '../core/samples/decode';
import { attackOf } from '../core/samples/sample';
import { readMidiFile } from '../core/midi/read/readMidi';
import { writeBeatsWithSounds } from '../core/files/beatFile';
import { writeKit } from '../core/files/kitFile';
import { voiceOfSamples } from '../core/samples/newVoice';
import { renderShipped } from '../core/mix/shippedLoops';
import { SHIPPED_LIST } from '../core/samples/shippedList';
import { wavOf } from '../core/files/wav';

/** Runs the command as a person does. */
const ruddik = (args: readonly string[]) => {
  const { status, stdout, stderr } = spawnSync(path.resolve(__dirname, '..', 'bin', 'ruddik'), args, {
    encoding: 'utf8',
  });
  return { code: status, out: stdout, err: stderr };
};

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'ruddik-sounds-'));
const at = (name: string) => path.join(folder, name);
afterAll(() => fs.rmSync(folder, { recursive: true }));

test('a loop is cut: as JSON, as MIDI, as slices that are the loop', async () => {
  const audio = await renderShipped(SHIPPED_LIST[1]!, 44100);
  fs.writeFileSync(at('loop.wav'), wavOf(audio.channels, 44100, 16));
  expect(ruddik(['slice', at('loop.wav'), at('loop.json')])).toMatchObject({ code: 0 });
  const found = JSON.parse(fs.readFileSync(at('loop.json'), 'utf8')) as {
    seconds: number;
    bpm: number;
    bars: number;
    onsets: number[];
  };
  expect(found.bpm).toBeCloseTo(SHIPPED_LIST[1]!.tempo, 1);
  expect(found.onsets.length).toBeGreaterThan(3);
  expect(
    ruddik(['slice', at('loop.wav'), at('loop.mid'), '--even', '8', '--first-note', '60']),
  ).toMatchObject({
    code: 0,
    out: expect.stringContaining('8 slices') as string,
  });
  expect(ruddik(['slice', at('loop.wav'), at('loop.zip'), '--bars', '1', '--even', '4'])).toMatchObject({
    code: 0,
  });
  const files = unzipSync(fs.readFileSync(at('loop.zip')));
  const slices = Object.keys(files).filter((name) => name.endsWith('.wav'));
  expect(slices).toHaveLength(4);
  let frames = 0;
  for (const name of slices) {
    const read = await decodeAudio(files[name]!, name);
    if (!read.ok) throw new Error(read.error);
    frames += read.audio.channels[0]!.length;
  }
  expect(frames).toBe(audio.channels[0]!.length);
}, 60_000);

test('a kit file is told, rendered, and plays a beat; what is missing is named', async () => {
  const late = Float32Array.from({ length: 44100 }, (_, i) => {
    const t = i / 44100 - 0.06;
    return t < 0 ? 0 : 0.8 * Math.exp(-t * 20) * Math.sin(i * 0.02);
  });
  const bytes = wavOf([late], 44100, 16);
  const id = Buffer.from(await crypto.subtle.digest('SHA-256', bytes as Uint8Array<ArrayBuffer>)).toString(
    'hex',
  );
  const own = { name: 'Late', voices: { kick: voiceOfSamples([{ id, file: 'late kick.wav', seconds: 1 }]) } };
  fs.writeFileSync(at('kit.zip'), writeKit({ kit: 'quay', own }, new Map([[id, bytes]])));
  fs.writeFileSync(at('less.zip'), writeKit({ kit: 'quay', own }, new Map()));
  expect(ruddik(['kit', at('kit.zip')])).toMatchObject({
    code: 0,
    out: expect.stringContaining('“Late”') as string,
  });
  expect(ruddik(['kit', at('kit.zip'), '--render', at('drums')])).toMatchObject({ code: 0 });
  expect(fs.readdirSync(at('drums'))).toEqual(['kick.wav']);
  expect(ruddik(['kit', at('less.zip')]).err).toContain('“late kick.wav” is missing');
  // Its attack is 60 ms late, and falls on the hit all the same.
  const beat = JSON.parse(fs.readFileSync('demo/beats/lantern-walk.ruddik.json', 'utf8')) as {
    lanes: { id: string; instrument: string; mute: boolean }[];
    patterns: { parts: Record<string, { hits: { step: number; nudge: number }[] }> }[];
    feel: object;
  };
  for (const lane of beat.lanes) lane.mute = lane.instrument !== 'kick';
  const kick = beat.lanes.find(({ instrument }) => instrument === 'kick')!;
  beat.patterns[0]!.parts[kick.id]!.hits = beat.patterns[0]!.parts[kick.id]!.hits.slice(0, 1).map((hit) => ({
    ...hit,
    step: 4,
    nudge: 0,
  }));
  fs.writeFileSync(at('beat.ruddik.json'), JSON.stringify(beat));
  const out = at('beat.wav');
  expect(ruddik(['export', at('beat.ruddik.json'), out, '--kit', at('kit.zip'), '--straight'])).toMatchObject(
    {
      code: 0,
    },
  );
  const read = await decodeAudio(fs.readFileSync(out), 'beat.wav');
  if (!read.ok) throw new Error(read.error);
  const { rate, channels } = read.audio;
  const hit = Math.round((60 / 92) * rate);
  const from = hit - Math.round(0.1 * rate);
  const heard =
    from +
    attackOf(
      channels.map((data) => data.slice(from)),
      rate,
    );
  expect(Math.abs(heard - hit) / rate).toBeLessThan(0.001);
  // A sampler starts a sound on its note: told so, the note comes as much earlier as the attack is late.
  const tickOf = (...more: string[]) => {
    const file = at('lead.mid');
    expect(
      ruddik(['export', at('beat.ruddik.json'), file, '--kit', at('kit.zip'), '--straight', ...more]),
    ).toMatchObject({ code: 0 });
    return readMidiFile(fs.readFileSync(file));
  };
  const [plain, led] = [tickOf(), tickOf('--lead')].map((midi) => {
    if (!midi.ok) throw new Error(midi.error);
    return midi.value.notes[0]!.start;
  });
  const seconds = ((plain! - led!) * 60) / (960 * 92);
  expect(seconds).toBeGreaterThan(0.059);
  expect(seconds).toBeLessThan(0.065);
  // The same samples on a lane of its own, with the beat in one file: nothing else is needed, and the sound is the same.
  const [{ id: laneId }] = [kick];
  const lanes = (beat.lanes as object[]).map((lane) =>
    'id' in lane && lane.id === laneId ? { ...lane, voice: own.voices.kick } : lane,
  );
  const text = JSON.stringify({ ...beat, lanes });
  fs.writeFileSync(
    at('whole.ruddik.zip'),
    writeBeatsWithSounds(text, [{ id, file: 'late kick.wav', seconds: 1 }], new Map([[id, bytes]])),
  );
  const whole = ruddik(['export', at('whole.ruddik.zip'), at('whole.wav'), '--straight']);
  expect(whole).toMatchObject({ code: 0, err: '' });
  expect(fs.readFileSync(at('whole.wav')).equals(fs.readFileSync(out))).toBe(true);
  fs.writeFileSync(at('bare.ruddik.json'), text);
  expect(ruddik(['export', at('bare.ruddik.json'), at('bare.wav')]).err).toContain(
    '“late kick.wav” is missing',
  );
}, 60_000);

test.each([
  [['slice', 'package.json', at('x.json')], 1, /no audio file/],
  [['slice', at('gone.wav'), at('x.json')], 1, /no such file/],
  [['slice', at('loop.wav'), at('x.txt')], 2, /is to end in/],
  [['slice', at('loop.wav'), at('x.json'), '--even', '4', '--sensitivity', '9'], 2, /does not go with it/],
  [['slice', at('loop.wav'), at('x.mid'), '--even', '64', '--first-note', '100'], 1, /pass note 127/],
  [['kit', 'package.json'], 1, /no ZIP/],
  [['kit', 'quay', '--all'], 2, /--render/],
  [['export', 'demo/beats/lantern-walk.ruddik.json', at('x.wav'), '--lead'], 2, /--lead is for MIDI/],
] as const)('of %j it says why not', (args, code, sentence) => {
  const { code: given, err } = ruddik(args);
  expect(given).toBe(code);
  expect(err).toMatch(sentence);
  expect(err.trim().split('\n')).toHaveLength(1);
});
