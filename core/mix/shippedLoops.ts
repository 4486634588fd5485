import { newBeat } from '../document/defaults';
import type { Beat } from '../document/schema';
import { grooveToBeat } from '../groove/grooveToBeat';
import { builtInGrooves } from '../groove/library';
import { allNotes } from '../play/driver';
import { planPasses } from '../play/timelinePlan';
import { createMixer, mix, replan } from './mixer';
import { mixed } from './mixNotes';
import type { Audio } from '../samples/sample';
import type { ShippedLoop } from '../samples/shippedList';
import { createSounds, soundsOfBeat } from '../samples/sounds';

const grooveNamed = (name: string) => {
  const all = builtInGrooves();
  return all.find((groove) => groove.name === name) ?? all[0]!;
};

/** The beat that a loop is rendered from. */
const beatOf = ({ groove, kit, tempo }: ShippedLoop): Beat => ({
  ...grooveToBeat(grooveNamed(groove), newBeat('loop', 'Loop', 7), { tempo, kit, once: false }),
  kit,
});

/**
 * Renders a loop that ships: exactly as long as its bars, its end ringing into its start.
 *
 * @param rate frames a second
 */
export const renderShipped = async (loop: ShippedLoop, rate: number): Promise<Audio> => {
  const beat = beatOf(loop);
  const plan = planPasses(beat, beat.patterns[0]!, 1);
  const seconds = (tick: number) => (tick * 60) / (960 * loop.tempo);
  const frames = Math.round(seconds(plan.timeline.length) * rate);
  const sounds = await soundsOfBeat(createSounds(rate), beat);
  const mixer = createMixer(rate);
  beat.lanes.forEach((_, at) => (mixer.sounds[at] = sounds[at]!.buffers));
  const round = allNotes(plan, 'wrap').flatMap((note) =>
    mixed(beat, note, sounds[note.lane]!, note.lane, Math.round(seconds(note.tick) * rate)),
  );
  // Twice, and the second time is it: what rings on at its end is heard at its start.
  replan(
    mixer,
    0,
    [...round, ...round.map((note) => ({ ...note, frame: note.frame + frames }))].sort(
      (a, b) => a.frame - b.frame,
    ),
  );
  const sides = [new Float32Array(2 * frames), new Float32Array(2 * frames)] as const;
  mix(mixer, sides[0], sides[1], 0);
  return { rate, channels: sides.map((side) => side.slice(frames)) };
};
