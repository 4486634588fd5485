/** @jest-environment jsdom */
import { looked, lookedAt } from '../../store/looked.mock';
import { keep } from '../../ui/useKept';
import { act, configure, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { favouritesText } from '../../../core/groove/favourites';
import { GENERAL_MIDI, drumMapText } from '../../../core/midi/drumMap/drumMap';
import { readDrumMap } from '../../../core/midi/drumMap/drumMapFile';
import { readMidnam } from '../../../core/midi/drumMap/mapFiles';
import { SIMULATED_NOTE } from '../../audio/noteInput';
import { beatOpened } from '../../store/doc';
import { FIRST_GROOVES, groovesChanged } from '../../store/grooves';
import { accept } from '../../store/offers';
import { store } from '../../keeping/session';
import { GroovesScreen } from './GroovesScreen';
import { pageFits } from '../../ui/width.mock';
import { loadEdits } from '../../store/deferredEdits';

beforeAll(loadEdits);

const mockSaved: [string, unknown][] = [];
const mockCalls: string[] = [];
const mockHeard = { tick: 0, pattern: null as string | null };
jest.mock('../../ui/files', () => ({
  saveText: (text: string, name: string) => mockSaved.push([name, text]),
  saveBytes: (bytes: Uint8Array, name: string) => mockSaved.push([name, bytes]),
}));
jest.mock('../../audio/player', () => ({
  strikeLane: () => Promise.resolve(),
  playedTick: () => mockHeard.tick,
  playedPattern: () => mockHeard.pattern,
  prepareSounds: () => undefined,
  setPlayed: (beat: { tempo: number; lanes: unknown[] }) => mockCalls.push(`set ${beat.tempo}`),
  startPlaying: () => {
    mockCalls.push('start');
    return Promise.resolve();
  },
  stopPlaying: () => mockCalls.push('stop'),
}));
jest.mock('../../workers/aside');
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});
jest.mock('../../keeping/storage', () => {
  const { memory } = jest.requireActual<typeof import('../../keeping/storage.mock')>(
    '../../keeping/storage.mock',
  );
  return { browserStorage: memory };
});
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../workers/askReport', () => {
  const { reportOf } = jest.requireActual<typeof import('../../workers/reportOf')>('../../workers/reportOf');
  return { askReport: (source: Parameters<typeof reportOf>[0]) => Promise.resolve(reportOf(source)) };
});

jest.setTimeout(240000);
configure({ asyncUtilTimeout: 60000 });

const beat = () => store.getState().doc.beat!;
const grooves = () => store.getState().grooves;
const notices = () => store.getState().notices.map(({ text }) => text);
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const page = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const look = (query: string) => fireEvent.change(screen.getByRole('searchbox'), { target: { value: query } });
const rows = () => within(screen.getByRole('list', { name: 'Grooves' })).getAllByRole('listitem');
const fileOf = (name: string, text: string): File => {
  const file = new File([], name);
  file.arrayBuffer = () => Promise.resolve(new TextEncoder().encode(text).buffer);
  return file;
};
const give = (name: string, file: File) =>
  fireEvent.change(screen.getByLabelText(name), { target: { files: [file] } });

const open = async (wide = false) => {
  pageFits(wide);
  global.fetch = jest.fn(() => Promise.reject(new Error('away')));
  render(
    <Provider store={store}>
      <GroovesScreen />
    </Provider>,
  );
  await screen.findByRole('list', { name: 'Grooves' });
};

/** Finds a groove, hears it and opens its page. */
const take = async (query: string, name: string) => {
  look(query);
  fireEvent.click(screen.getByRole('button', { name }));
  await screen.findByRole('region', { name: 'Chosen groove' });
  press('Open');
};

beforeEach(() => keep('grooves page', 'list'));
beforeEach(() => {
  mockSaved.length = 0;
  mockCalls.length = 0;
  Object.assign(mockHeard, { tick: 0, pattern: null });
  act(() => {
    store.dispatch(groovesChanged(FIRST_GROOVES));
    store.dispatch(looked({ playing: false, audition: null, patternId: null }));
    store.dispatch(beatOpened({ beat: { ...newBeat('b', 'Beat', 1), tempo: 96 } }));
  });
});

test('on a wide page what there is stands beside the list until a groove is chosen, and narrows it by a tap', async () => {
  await open(true);
  const beside = within(screen.getByRole('complementary', { name: 'Groove' }));
  const style = await beside.findByRole('button', { name: /^Samba \d+$/ });
  const wanted = Number(/\d+/.exec(style.textContent!)![0]);
  fireEvent.click(style);
  expect(grooves().filters).toEqual({ style: 'Samba' });
  expect(rows()).toHaveLength(wanted);
  expect(beside.getByRole('button', { name: /^Samba/ }).getAttribute('aria-pressed')).toBe('true');
  fireEvent.click(beside.getByRole('button', { name: /^Samba/ }));
  expect(grooves().filters).toEqual({});
});

test('a word narrows the list, a tap is heard at the tempo that is wanted, and it can be kept', async () => {
  await open();
  look('noodle ghost');
  expect(rows()).toHaveLength(1);
  fireEvent.click(screen.getByRole('button', { name: 'Noodle queue, ghost notes' }));
  await screen.findByRole('button', { name: 'Stop the groove' });
  expect(mockCalls).toEqual(['stop', 'set 96', 'start']);
  press('Hearing: how grooves are heard');
  choose('Tempo of grooves', 'groove');
  expect(store.getState().transport.audition!.beat.tempo).toBe(90);
  press('Stop the groove');
  expect(lookedAt(store.getState())).toMatchObject({ playing: false, audition: null });
  press('Keep Noodle queue, ghost notes');
  page('Keepers');
  press('Show all');
  expect(rows()).toHaveLength(1);
  press('Save keepers');
  expect(mockSaved[0]).toEqual(['keepers.json', favouritesText(grooves().keepers)]);
});

test('beside a running beat it joins without beginning anew, and the beat runs on', async () => {
  act(() => {
    store.dispatch(groovesChanged({ inTime: true, silenced: ['Kick'] }));
    store.dispatch(looked({ playing: true }));
  });
  await open();
  look('tumbao');
  fireEvent.click(screen.getByRole('button', { name: 'Congas, tumbao' }));
  await screen.findByRole('button', { name: 'Stop the groove' });
  expect(mockCalls).not.toContain('start');
  const { audition } = store.getState().transport;
  expect(audition!.beat.lanes[0]).toMatchObject({ name: 'Kick', mute: true });
  expect(audition!.beat.lanes).toHaveLength(beat().lanes.length + 2);
  press('Stop the groove');
  expect(lookedAt(store.getState())).toMatchObject({ playing: true, audition: null });
});

test('brought in as a new pattern at double time, with other voices; then laid over, and its feel taken', async () => {
  await open();
  await take('spice scoop open', 'Spice scoop, open hats');
  expect(await screen.findByText(/^Made for 92 to 114 BPM/)).toBeTruthy();
  page('Re-voice');
  choose('Time is kept on', 'ride');
  choose('Snare is played with', 'snare.rimshot');
  page('Bring in');
  choose('Speed', '2');
  press('As a new pattern');
  const made = beat().patterns[1]!;
  expect(made).toMatchObject({ name: 'Spice scoop, open hats', bars: 1 });
  const played = beat()
    .lanes.filter(({ id }) => made.parts[id]?.hits.length)
    .map(({ instrument }) => instrument);
  expect(played).toEqual(expect.arrayContaining(['kick', 'snare.rimshot', 'ride', 'ride.bell']));
  expect(played).not.toContain('hat.closed');
  expect(notices().at(-1)).toContain('is a new pattern of your beat');
  press('Ride');
  press('Lay over');
  expect(notices().at(-1)).not.toContain('Ride,');
  press('Its feel as a template');
  expect(beat().templates).toHaveLength(1);
});

test('what is like it is ranked; a choice is heard', async () => {
  await open();
  await take('noodle', 'Noodle queue');
  page('Like this');
  const found = within(screen.getByRole('list', { name: 'Found' })).getAllByRole('button');
  expect(found[0]!.getAttribute('aria-label')).toMatch(/^Noodle queue.*alike$/);
  choose('What is looked for', 'percussion');
  fireEvent.click(within(screen.getByRole('list', { name: 'Found' })).getAllByRole('button')[0]!);
  await waitFor(() => expect(grooves().chosen).toContain('built-in/'));
  expect(
    within(screen.getByRole('region', { name: 'Chosen groove' })).queryByText('Noodle queue'),
  ).toBeNull();
});

test('a map is opened, learnt, and the beat written with it; what it lacks keeps its note', async () => {
  await open();
  press('Maps');
  give(
    'Drum map file',
    fileOf(
      'p.json',
      drumMapText({ ...GENERAL_MIDI, name: 'Pads', notes: [{ note: 60, instrument: 'kick' }] }),
    ),
  );
  await screen.findByRole('list', { name: 'Notes of Pads' });
  choose('Drum to learn', 'snare');
  press('Learn its note');
  act(() => void window.dispatchEvent(new CustomEvent(SIMULATED_NOTE, { detail: 61 })));
  await screen.findByRole('combobox', { name: 'Note 61 is' });
  page('Write the beat');
  press('Write the beat with this map');
  await waitFor(() => expect(beat().map!.name).toBe('Pads'));
  expect(
    beat()
      .lanes.slice(0, 3)
      .map(({ note }) => note),
  ).toEqual([60, 61, 39]);
  expect(notices().at(-1)).toContain('Clap');
  page('Notes');
  press('Octave up');
  expect(grooves().maps[0]!.notes.map(({ note }) => note)).toEqual([72, 73]);
  give('Drum map file', fileOf('bad.json', '{}'));
  await waitFor(() => expect(notices().at(-1)).toContain('not a drum map of Ruddik.'));
});

test('a table of drums is looked at before it becomes a map', async () => {
  await open();
  press('Maps');
  give('Drum map file', fileOf('kit.csv', '36,Kick\n37,Thunder'));
  await screen.findByText(/1 of them could not be told/);
  choose('Note 37, Thunder, is', 'tom.low');
  press('Make this map');
  expect(grooves().maps[0]).toMatchObject({
    name: 'kit',
    notes: [
      { note: 36, instrument: 'kick' },
      { note: 37, instrument: 'tom.low' },
    ],
  });
});

test('on a wide screen the columns sort, both ways; the folder of the server is said to be away', async () => {
  await open(true);
  expect(await screen.findByText(/out of reach/)).toBeTruthy();
  press('BPM: sort by it');
  const first = () => rows()[0]!.textContent;
  const slow = first();
  press(/^BPM ↑: sort by it/);
  expect(first()).not.toBe(slow);
  fireEvent.keyDown(screen.getByRole('list', { name: 'Grooves' }), { key: 'ArrowDown' });
  await waitFor(() => expect(screen.getAllByRole('heading', { level: 2 }).length).toBeGreaterThan(0));
  // The focus goes with what is chosen by keys, from row to row.
  for (const place of [1, 2, 3]) {
    fireEvent.keyDown(document.activeElement!, { key: 'ArrowDown' });
    const chosen = within(rows()[place]!).getAllByRole('button')[0]!;
    await waitFor(() => expect(chosen.getAttribute('aria-current')).toBe('true'));
    expect(document.activeElement).toBe(chosen);
  }
  fireEvent.click(within(rows()[0]!).getAllByRole('button')[0]!);
  expect(document.activeElement).not.toBe(within(rows()[0]!).getAllByRole('button')[0]!);
});

describe('when a groove ends', () => {
  /** The groove that sounds is heard to its end, and the page has looked. */
  const heardOut = async () => {
    const { audition } = store.getState().transport;
    mockHeard.pattern = audition!.patternId;
    mockHeard.tick = 100_000_000;
    await act(() => new Promise((resolve) => setTimeout(resolve, 60)));
    mockHeard.tick = 0;
  };
  const begun = async (after: 'stop' | 'next' | 'repeat') => {
    act(() => void store.dispatch(groovesChanged({ after })));
    await open();
    look('noodle');
    fireEvent.click(screen.getByRole('button', { name: 'Noodle queue' }));
    await screen.findByRole('button', { name: 'Stop the groove' });
  };

  test('it stops where that is wanted', async () => {
    await begun('stop');
    await heardOut();
    expect(lookedAt(store.getState())).toMatchObject({ playing: false, audition: null });
    expect(screen.getByRole('button', { name: 'Hear the groove' })).toBeTruthy();
  });

  test('it goes on to the next of the list, and from the last to nothing', async () => {
    await begun('next');
    const { chosen } = grooves();
    await heardOut();
    await waitFor(() => expect(grooves().chosen).not.toBe(chosen));
    const names = rows().map((row) => within(row).getAllByRole('button')[0]!.getAttribute('aria-label'));
    const next = names[names.indexOf('Noodle queue') + 1];
    expect(screen.getByRole('button', { name: next!, current: true })).toBeTruthy();
    await screen.findByRole('button', { name: 'Stop the groove' });
  });

  test('it repeats otherwise', async () => {
    await begun('repeat');
    await heardOut();
    expect(store.getState().transport.playing).toBe(true);
    expect(grooves().chosen).toContain('built-in/');
  });
});

test('the tempo by hand is held within what can be played, and is what is heard', async () => {
  await open();
  press('Hearing: how grooves are heard');
  choose('Tempo of grooves', 'hand');
  const field = screen.getByLabelText('Tempo by hand');
  fireEvent.focus(field);
  fireEvent.change(field, { target: { value: '9000' } });
  fireEvent.keyDown(field, { key: 'Enter' });
  fireEvent.blur(field);
  expect(grooves().hand).toBe(300);
  look('noodle ghost');
  fireEvent.click(screen.getByRole('button', { name: 'Noodle queue, ghost notes' }));
  await screen.findByRole('button', { name: 'Stop the groove' });
  expect(mockCalls).toContain('set 300');
});

test('keepers whose grooves are elsewhere are named; a file that is none is refused', async () => {
  await open();
  page('Keepers');
  const away = { grooves: [{ id: 'imported/far.mid', name: 'Far away' }], folders: [['Built-in', 'Samba']] };
  give('Keepers file', fileOf('k.json', favouritesText(away)));
  await waitFor(() => expect(notices().at(-1)).toBe('2 new keepers from “k.json”.'));
  press('1 kept groove is not here');
  expect(screen.getByText('Far away')).toBeTruthy();
  press('Folder Samba');
  expect(grooves()).toMatchObject({ view: 'folders', path: ['Built-in', 'Samba'] });
  expect(screen.getByRole('navigation', { name: 'Folder' }).textContent).toContain('Samba');
  press('Up');
  expect(grooves().path).toEqual(['Built-in']);
  page('Keepers');
  give('Keepers file', fileOf('bad.json', '{"kind":"other"}'));
  await waitFor(() => expect(notices().at(-1)).toContain('“bad.json” was not taken in.'));
  expect(grooves().keepers.grooves).toHaveLength(1);
});

test('a map that was deleted is brought back by what the notice offers', async () => {
  const pads = { ...GENERAL_MIDI, name: 'Pads', notes: [{ note: 60, instrument: 'kick' as const }] };
  act(() => void store.dispatch(groovesChanged({ maps: [pads], readWith: 'Pads' })));
  await open();
  press('Maps');
  choose('Drum map', 'Pads');
  press('Delete');
  expect(grooves()).toMatchObject({ maps: [], readWith: GENERAL_MIDI.name });
  const { action } = store.getState().notices.at(-1)!;
  act(() => accept((action!.does as { id: string }).id));
  expect(grooves()).toMatchObject({ maps: [pads], readWith: 'Pads' });
});

test('the notes of a map are set by number, taken out, and written to files', async () => {
  await open();
  press('Maps');
  press('New empty map');
  expect(screen.getByText(/No note has a drum yet/)).toBeTruthy();
  choose('Note 36 plays', 'snare');
  expect(grooves().maps[0]!.notes).toEqual([{ note: 36, instrument: 'snare' }]);
  choose('Note 36 is', 'cowbell');
  expect(grooves().maps[0]!.notes).toEqual([{ note: 36, instrument: 'cowbell' }]);
  press('Save as JSON');
  press('Save as .midnam');
  expect(mockSaved.map(([name]) => name)).toEqual(['Empty-map.map.json', 'Empty-map.midnam']);
  const [json, midnam] = mockSaved.map(([, data]) => data);
  expect(readDrumMap(json as string)).toMatchObject({ ok: true, value: { name: 'Empty map' } });
  const back = readMidnam(new TextDecoder().decode(midnam as Uint8Array));
  expect(back.ok && back.value.notes.map(({ note, instrument }) => [note, instrument])).toEqual([
    [36, 'cowbell'],
  ]);
  press('Take note 36 out');
  expect(grooves().maps[0]!.notes).toEqual([]);
  press('Copy it');
  expect(grooves().maps.map(({ name }) => name)).toEqual(['Empty map', 'Empty map copy']);
});
