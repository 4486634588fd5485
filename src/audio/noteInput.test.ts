import { heldOf, hearNotes, holdOutside, playOutside, type HeldIn, type NoteIn } from './noteInput';

test.each([
  [[0x89, 36, 64], { note: 36, pressure: null }],
  [[0x90, 36, 0], { note: 36, pressure: null }],
  [[0xa9, 36, 80], { note: 36, pressure: 80 }],
  [[0xd9, 33], { note: null, pressure: 33 }],
  [[0x90, 36, 90], null],
  [[0xf8], null],
  [[], null],
])('%j says of what is held: %j', (bytes, held) => expect(heldOf(bytes)).toEqual(held));

test('who hears notes hears what becomes of them, until it is stopped', () => {
  const notes: NoteIn[] = [];
  const helds: HeldIn[] = [];
  const stop = hearNotes({
    give: (note) => void notes.push(note),
    hold: (held) => void helds.push(held),
    asks: false,
  });
  playOutside({ note: 36, velocity: 90, time: 12 });
  holdOutside({ note: 36, pressure: 100 });
  holdOutside({ note: null, pressure: null });
  stop();
  playOutside({ note: 38, velocity: 90, time: 13 });
  holdOutside({ note: 38, pressure: 1 });
  expect(notes).toEqual([{ note: 36, velocity: 90, time: 12 }]);
  expect(helds).toEqual([
    { note: 36, pressure: 100 },
    { note: null, pressure: null },
  ]);
});
