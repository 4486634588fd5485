import { newBeat } from './document/defaults';
import { beatSchema } from './document/schema';
import { addSection, newEntry } from './edit/song';
import { colourOf } from './document/sectionNames';
import { namedBy } from './export/names';
import { readGrooves } from './groove/text';
import { instrumentOfFile } from './samples/fileNames';
import { namedIn } from './namedIn';

/** What every object has by itself. */
const NAMES = [...Object.getOwnPropertyNames(Object.prototype), 'prototype'];

test('a table has nothing but what was put there', () => {
  for (const name of NAMES) expect(namedIn({ Verse: 1 }, name)).toBeUndefined();
  expect(namedIn({ Verse: 1 }, 'Verse')).toBe(1);
});

test('sections, files, grooves and names of exports may be called as every object is inside', () => {
  for (const name of NAMES) {
    expect(colourOf(`${name} 2`)).toBe('walnut');
    const beat = newBeat('b', name, 1);
    const section = {
      id: 's',
      name,
      pigment: colourOf(name),
      entries: [newEntry('e', 'a', 1)],
      silent: [],
    };
    const made = addSection(beat, section, 'p', null);
    expect(beatSchema.safeParse(JSON.parse(JSON.stringify(made))).success).toBe(true);
    expect(() => instrumentOfFile(`${name}.wav`)).not.toThrow();
    expect(
      namedBy(`{${name}}-{beat}`, {
        beat: 'Rain',
        section: '',
        lane: '',
        bpm: 90,
        meter: { beats: 4, unit: 4 },
        bars: 1,
        number: null,
      }),
    ).toContain('Rain');
    expect(() => readGrooves(`groove Ferry\n${name} x...`)).not.toThrow();
  }
});
