import fs from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { KEY_LIST, keyText, keysPage, shortKeyText } from './keyList';
import { KEYS, keyOf, type KeyId, type Pressed } from '../../ui/keys';

const IDS = Object.keys(KEYS) as KeyId[];

const NONE = { ctrlKey: false, metaKey: false, shiftKey: false, altKey: false };
const named: Record<string, Pick<Pressed, 'key' | 'code'>> = {
  Space: { key: ' ', code: 'Space' },
  Arrow: { key: 'ArrowLeft', code: 'ArrowLeft' },
  '1-9': { key: '7', code: 'Digit7' },
  'Digit1-9': { key: '!', code: 'Digit1' },
  'Digit0-9': { key: '0', code: 'Digit0' },
  Comma: { key: ',', code: 'Comma' },
  Period: { key: '.', code: 'Period' },
  '?': { key: '?', code: 'Slash' },
};

/** What a browser tells of a press; with Shift a comma is another sign. */
const eventOf = (press: string): Pressed => {
  const held = press.split('+');
  const name = held.pop()!;
  const key = named[name] ?? { key: name.toLowerCase(), code: `Key${name}` };
  const shiftKey = held.includes('Shift');
  const shifted = shiftKey && { Comma: '<', Period: '>' }[name];
  return {
    ...NONE,
    ...(named[name] || name.length === 1 ? key : { key: name, code: name }),
    ...(shifted && { key: shifted }),
    shiftKey,
    altKey: held.includes('Alt'),
    ctrlKey: held.includes('Mod'),
  };
};

/** Those that are heard in one place. */
const TOGETHER: KeyId[][] = [
  ['find', 'undo', 'redo', 'play', 'showPattern', 'recallRoute', 'help'],
  IDS.slice(IDS.indexOf('walk'), IDS.indexOf('tune') + 1),
];

test.each(TOGETHER.flatMap((ids) => ids.flatMap((id) => KEYS[id].map((press) => [id, press, ids] as const))))(
  '%s is pressed by %s, and nothing else of its place is',
  (id, press, ids) => {
    const event = eventOf(press);
    expect(ids.filter((one) => keyOf(event, [one]))).toEqual([id]);
    // With a key held that is not meant it is another press.
    const more = press.includes('Alt') ? { ...event, ctrlKey: true } : { ...event, altKey: true };
    expect(keyOf(more, [id])).toBeNull();
    if (event.ctrlKey) expect(keyOf({ ...event, ctrlKey: false, metaKey: true }, [id])).toBe(id);
  },
);

test.each([
  ['z', { ctrlKey: true }, 'undo'],
  ['Z', { ctrlKey: true, shiftKey: true }, 'redo'],
  ['Z', { metaKey: true, shiftKey: true }, 'redo'],
  ['z', {}, null],
  ['y', { ctrlKey: true }, 'redo'],
  [' ', { shiftKey: true }, 'play'],
  [' ', { altKey: true }, null],
] as const)('%j with %j is %s', (key, held, id) => {
  expect(keyOf({ ...NONE, code: '', key, ...held }, ['redo', 'undo', 'play'])).toBe(id);
});

test('figures: as typed they are velocities, by their place with Shift patterns, with Alt routes', () => {
  const heard = ['velocity', 'showPattern', 'recallRoute'] as const;
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 9 }), (figure) => {
      const of = (held: object, key = String(figure)) =>
        keyOf({ ...NONE, key, code: `Digit${figure}`, ...held }, heard);
      expect(of({})).toBe(figure ? 'velocity' : null);
      expect(of({ shiftKey: true }, '§')).toBe(figure ? 'showPattern' : null);
      expect(of({ altKey: true })).toBe('recallRoute');
      expect(of({ ctrlKey: true })).toBeNull();
    }),
  );
});

test('the list has every key, each in words; the page in docs/ is that list', () => {
  for (const id of IDS) expect(KEY_LIST.filter(({ keys }) => keys === keyText(id)).length).toBeGreaterThan(0);
  const plain = (text: string) => text.replaceAll('\u00a0', ' ');
  expect(plain(keyText('redo'))).toBe('Shift + Ctrl/Cmd + Z, Ctrl/Cmd + Y');
  expect(plain(shortKeyText('redo'))).toBe('Shift + Ctrl/Cmd + Z');
  expect(plain(keyText('nudgeFar'))).toBe('Shift + comma, Shift + period');
  expect(new Set(KEY_LIST.map(({ does }) => does)).size).toBe(KEY_LIST.length);
  const kept = fs.readFileSync(path.join(__dirname, '..', '..', '..', 'docs', 'keys.md'), 'utf8');
  expect(kept).toBe(keysPage());
});
