import { newLane } from './defaults';
import { FAMILY_NAMES, familyOf, familyOfNote, lanesOfFamily } from './families';
import { INSTRUMENT_IDS, INSTRUMENTS } from './instruments';

test('every instrument has a family with a name', () => {
  for (const id of INSTRUMENT_IDS) expect(FAMILY_NAMES[familyOf(newLane('a', id))]).toBeTruthy();
});

test('a lane keeps its family when it is recoloured', () => {
  expect(familyOf({ ...newLane('a', 'hat.open'), pigment: 'walnut' } as never)).toBe('lichen');
});

test('lanes of a family, in their order', () => {
  const lanes = (['kick', 'hat.closed', 'snare', 'ride'] as const).map((id) => newLane(id, id));
  expect(lanesOfFamily(lanes, 'lichen').map(({ id }) => id)).toEqual(['hat.closed', 'ride']);
  expect(lanesOfFamily(lanes, 'madder')).toEqual([]);
});

test('notes of General MIDI’s percussion have a family, others none', () => {
  for (let note = 35; note <= 81; note++) expect(familyOfNote(note)).not.toBeNull();
  expect(familyOfNote(34)).toBeNull();
  expect(familyOfNote(82)).toBeNull();
  expect(familyOfNote(INSTRUMENTS.kick.note)).toBe('walnut');
});
