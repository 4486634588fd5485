import type { KitFigures } from './kitFigures';
import { KIT_LIST } from './kitList';

const percent = (share: number): string => `${Math.round(100 * share)} %`;
const khz = (hertz: number): string => `${(hertz / 1000).toFixed(1)} kHz`;

/**
 * The page of the documentation that tells of the kits, with what is measured of each.
 *
 * @param figures by the kit's id
 */
export const kitsPage = (figures: ReadonlyMap<string, KitFigures>): string => {
  const rows = KIT_LIST.map(({ id, name, about }) => {
    const f = figures.get(id)!;
    return `| ${[
      `**${name}**`,
      about,
      `${f.loudness.toFixed(1)} LUFS`,
      `${f.peak.toFixed(1)} dB`,
      percent(f.kickLow),
      percent(f.hatHigh),
      `${f.kickRing.toFixed(2)} s`,
      `${f.snareRing.toFixed(2)} s`,
      `${khz(f.snareSoft)} to ${khz(f.snareHard)}`,
    ].join(' | ')} |`;
  });
  return `# Kits

Ten kits ship. None is recorded: each drum is a recipe (\`core/synthesis/kits\`) that is synthesized at the rate that is wanted
(\`core/synthesis/voices.ts\`), four times as hard from softly to hard, and what is struck often in three strikes that are a little
different each. Which of the three sounds goes by the beat's seed, the lane and the count of its strokes: at random, each once
before any comes again, never one twice in a row; so a bounce has the strikes that were heard.

Every percussion sound of General MIDI is answered in every kit: by its own recipe, or by that of its nearest relative.

Measured over two bars of one beat at 96 BPM (loudness after ITU-R BS.1770-4), of the hard kick, the hard closed hat, and the
snare from soft to hard; rings are the time to 40 dB below the loudest.

| kit | | loudness | peak | kick below 120 Hz | hat above 5 kHz | kick rings | snare rings | snare's brightness |
| --- | --- | --- | --- | --- | --- | --- | --- | --- |
${rows.join('\n')}

This page is written by \`npm run docs\` and held by a test.
`;
};
