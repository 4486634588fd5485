/** @jest-environment jsdom */
import { looked, lookedAt } from '../../store/looked.mock';
import { keep } from '../../ui/useKept';
import { slideTo, typedOtherwise } from '../../ui/slide.mock';
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { Activity, type ReactNode } from 'react';
import { Provider } from 'react-redux';
import { DEMO_BEATS } from '../../../demo/beats';
import { songTimeline } from '../../../core/play/timeline';
import type { Beat } from '../../../core/document/schema';
import { beatOpened, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { SayContext } from '../../ui/say';
import { songClock } from '../../store/songClock';
import { PlayContext } from '../../ui/playing';
import { SongScreen, countedAt } from './SongScreen';
import { pageFits } from '../../ui/width.mock';
import { loadEdits } from '../../store/deferredEdits';
import { songTried } from '../../store/transport';

beforeAll(loadEdits);

const mockHeard: { patternId: string; at: number; tempo: number }[] = [];
jest.mock('../../audio/player', () => ({
  playedSongTick: () => null,
  heardPatterns: () => mockHeard,
  heardSeconds: () => 20,
}));
jest.mock('../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: ReactNode }) => (
    <section aria-label={title}>{children}</section>
  ),
}));
jest.mock('../../web/SortableLater', () => jest.requireActual('../../web/SortableLater.mock'));
const mockAsked: number[] = [];
/** Gives a tile its picture, late as it may be. */
const mockShow: ((blob: Blob) => void)[] = [];
jest.mock('../../strings/tiles', () => ({
  askTile: (_song: object, index: number, show: (blob: Blob) => void) => {
    mockAsked.push(index);
    mockShow.push(show);
  },
}));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});

const LANTERN = DEMO_BEATS[0]!;
const beat = () => store.getState().doc.beat!;
const view = () => lookedAt(store.getState());
const toggled = jest.fn(() => {
  const { playing, song } = view();
  store.dispatch(
    looked({ playing: !playing, song: { ...song, playing: !playing, ...(playing && { tried: null }) } }),
  );
});
const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
const tab = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
const pick = (label: string, value: string) =>
  fireEvent.change(screen.getByLabelText(label), { target: { value } });
const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.keyDown(field, { key: 'Enter' });
  fireEvent.blur(field);
};
const place = () => screen.getByRole('slider', { name: 'Place in the song' });
const sectionNamed = (name: string) => beat().song.sections.find((section) => section.name === name)!;
const notices = () => store.getState().notices.map(({ text }) => text);

const open = (what: Beat = LANTERN) => {
  store.dispatch(beatOpened({ beat: what }));
  store.dispatch(looked({ patternId: 'a', playing: false }));
  store.dispatch(songTried({ shown: false, playing: false, from: 0, loop: null, tried: null }));
  toggled.mockClear();
  const shown = (mode: 'visible' | 'hidden') => (
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <PlayContext value={toggled}>
          <Activity mode={mode}>
            <SongScreen />
          </Activity>
        </PlayContext>
      </SayContext>
    </Provider>
  );
  const { rerender } = render(shown('visible'));
  /** To another screen, and back: this one is kept. */
  return { go: () => rerender(shown('hidden')), come: () => rerender(shown('visible')) };
};

beforeEach(() => keep('song page', 'sections'));
beforeEach(() => {
  pageFits(false);
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  mockAsked.splice(0);
  mockShow.splice(0);
});

describe('the song at a glance', () => {
  beforeEach(() => open());

  test('says how long it is, and that play means the song from now on', () => {
    expect(screen.getByText('Lantern Walk · 76 bars, 3:19')).toBeTruthy();
    expect(view().song.shown).toBe(true);
    expect(songClock()!.length).toBe(76 * 3840);
    expect(songClock()!.placeAt(6 * 3840 + 960)).toEqual({ counted: '7.2.1', under: 'Verse 0:16' });
  });

  test('keys go from bar to bar and from section to section; Enter plays from there', () => {
    fireEvent.keyDown(place(), { key: 'ArrowRight' });
    expect(view().song.from).toBe(3840);
    fireEvent.keyDown(place(), { key: 'PageDown' });
    expect(place().getAttribute('aria-valuetext')).toBe('bar 7, Verse, 0:15');
    fireEvent.keyDown(place(), { key: 'PageUp' });
    expect(view().song.from).toBe(0);
    fireEvent.keyDown(place(), { key: 'End' });
    expect(view().song.from).toBe(75 * 3840);
    expect(toggled).not.toHaveBeenCalled();
    fireEvent.keyDown(place(), { key: 'Enter' });
    expect(toggled).toHaveBeenCalledTimes(1);
  });

  test('what is in sight is painted before what lies beyond', () => {
    press('Show less of the song, larger');
    mockAsked.splice(0);
    press('Show less of the song, larger');
    const asked = mockAsked.splice(0);
    expect(asked.length).toBeGreaterThan(1);
    expect(asked.indexOf(0)).toBeLessThan(asked.indexOf(2));
    expect(new Set(asked).size).toBe(asked.length);
  });

  test('a picture that comes for a tile that is gone is let go', () => {
    const made: unknown[] = [];
    URL.createObjectURL = (blob) => `blob:${made.push(blob)}`;
    URL.revokeObjectURL = () => undefined;
    const late = mockShow.splice(0);
    late[0]!(new Blob(['here']));
    expect(made).toHaveLength(1);
    cleanup();
    for (const show of late) show(new Blob(['late']));
    expect(made).toHaveLength(1);
  });

  test('the section under the place is repeated, and no longer', () => {
    fireEvent.keyDown(place(), { key: 'PageDown' });
    press('Repeat section Verse');
    expect(view().song.loop).toEqual({ from: 6 * 3840, to: 18 * 3840 });
    press('Repeat section Verse');
    expect(view().song.loop).toBeNull();
  });

  test('places are counted in the meter of their bar', () => {
    const layout = songTimeline(LANTERN);
    expect([countedAt(layout, 0), countedAt(layout, 3840 + 960 + 240)]).toEqual(['1.1.1', '2.2.2']);
  });
});

describe('sections', () => {
  beforeEach(() => open());

  test('are listed with what they play, linked ones and those that change marked', () => {
    const verse = screen.getAllByRole('button', { name: 'Edit Verse' });
    expect(verse).toHaveLength(2);
    expect(within(verse[0]!.parentElement!).getByText('A · the stalls, 12 bars')).toBeTruthy();
    expect(within(verse[0]!.parentElement!).getByText('linked, fill, 1 silent')).toBeTruthy();
    expect(
      within(screen.getByRole('button', { name: 'Edit Break' }).parentElement!).getByText(/changes/),
    ).toBeTruthy();
  });

  test('a new one has the first pattern at hand and opens', () => {
    pick('Add a section', 'Bridge');
    expect(sectionNamed('Bridge').entries).toMatchObject([{ patternId: 'e', bars: 8 }]);
    expect(screen.getByRole('region', { name: 'Bridge' })).toBeTruthy();
  });

  test('patterns are added, counted in times or bars, exchanged and taken out', () => {
    press('Edit Break');
    pick('Add a pattern to Break', 'c');
    expect(sectionNamed('Break').entries.map(({ patternId }) => patternId)).toEqual(['b', 'e', 'c']);
    type('Times C · all lamps lit plays', '3');
    expect(sectionNamed('Break').entries[2]).toMatchObject({ times: 3 });
    press('count bars instead, for C · all lamps lit');
    expect(sectionNamed('Break').entries[2]).toMatchObject({ bars: 6 });
    type('Bars of C · all lamps lit', '90');
    expect(sectionNamed('Break').entries[2]).toMatchObject({ bars: 64 });
    expect(notices()).toContain('Bars of C · all lamps lit runs from 1 to 64: 90 became 64.');
    pick('Pattern 1 of Break', 'a');
    expect(sectionNamed('Break').entries[0]!.patternId).toBe('a');
    press('Take C · all lamps lit out of Break');
    expect(sectionNamed('Break').entries).toHaveLength(2);
  });

  test('what is its own: tempo, level, feel, silent lanes, and what changes across it', () => {
    press('Edit Break');
    type('Tempo of Break', '500');
    expect(sectionNamed('Break').tempo).toBe(300);
    press('As the beat');
    expect(sectionNamed('Break').tempo).toBeUndefined();
    expect(typedOtherwise()).toEqual([]);
    slideTo('Level of Break', 150);
    expect(sectionNamed('Break').level).toBe(1.5);
    pick('Feel of Break', 'beat');
    expect(sectionNamed('Break').feel).toEqual(beat().feel);
    pick('Feel of Break', '');
    expect(sectionNamed('Break').feel).toBeUndefined();
    press('Snare');
    expect(sectionNamed('Break').silent).toEqual(['kick', 'snare']);
    press('Tempo');
    type('Tempo at the end of Break', '120');
    type('Over how many of its last bars the tempo of Break changes', '1');
    expect(sectionNamed('Break').change).toMatchObject({ bars: 1 });
    type('Over how many of its last bars the tempo of Break changes', '64');
    slideTo('Push or drag into Break', -12);
    type('Over how many bars before Break', '3');
    expect(sectionNamed('Break').into).toEqual({ ms: -12, bars: 3 });
    slideTo('Push or drag into Break', 0);
    expect(sectionNamed('Break')).not.toHaveProperty('into');
    expect(sectionNamed('Break').change).toEqual({ level: 1.1, swing: 54, tempo: 120 });
    press('Swing');
    press('Level');
    press('Tempo');
    expect(sectionNamed('Break').change).toBeUndefined();
  });

  test('a fill is chosen, over a bar or a beat, or offered, heard in its place and taken', async () => {
    press('Edit Break');
    pick('Fill of Break', '');
    expect(sectionNamed('Break').fill).toBeUndefined();
    pick('Fill of Break', 'd');
    pick('The fill takes the place of', 'beat');
    expect(sectionNamed('Break').fill).toEqual({ patternId: 'd', over: 'beat' });
    press('Offer fills');
    await screen.findByRole('button', { name: 'Hear Snare run in place' }, { timeout: 20_000 });
    press('Hear Snare run in place');
    const { tried, loop } = view().song;
    expect(tried!.song.sections.find(({ name }) => name === 'Break')!.fill!.patternId).toBe('tried fill');
    expect(loop).toEqual({ from: 52 * 3840, to: 55 * 3840 });
    expect(toggled).toHaveBeenCalledTimes(1);
    press('Take Snare run');
    expect(view().song.tried).toBeNull();
    const { fill } = sectionNamed('Break');
    expect(beat().patterns.find(({ id }) => id === fill!.patternId)!.name).toContain('Snare run of E');
    act(() => void store.dispatch(undone()));
    expect(sectionNamed('Break').fill!.patternId).toBe('d');
  });

  test('a fill that is refused leaves play as it was: from where it began, repeating what it did', async () => {
    const before = { from: 3840, loop: { from: 0, to: 4 * 3840 } };
    press('Edit Break');
    act(() => void store.dispatch(songTried({ tried: null, ...before })));
    for (const leave of ['None of these', 'Stop Snare run']) {
      press('Offer fills');
      await screen.findByRole('button', { name: 'Hear Snare run in place' }, { timeout: 20_000 });
      press('Hear Snare run in place');
      expect(view().song.loop).toEqual({ from: 52 * 3840, to: 55 * 3840 });
      press(leave);
      expect(view().song).toMatchObject({ ...before, tried: null, playing: false });
    }
  });

  test('a linked one comes again, is parted, moved and taken out', () => {
    press('Edit Break');
    press('Again, linked');
    expect(beat().song.order).toHaveLength(9);
    expect(screen.getByText(/Linked: it plays in 2 places/)).toBeTruthy();
    press('Make this one its own');
    expect(beat().song.sections.map(({ name }) => name)).toContain('Break 2');
    press('Earlier');
    expect(
      beat()
        .song.order.map(({ id }) => id)
        .indexOf('place-6'),
    ).toBe(4);
    press('Take it out');
    expect(beat().song.order.some(({ id }) => id === 'place-6')).toBe(false);
  });
});

describe('tray, forms and playing live', () => {
  test('the tray plays one after the other, and what lies in it goes to the song', () => {
    open();
    tab('Tray');
    press('Play in order');
    expect(view().song.tried!.song.order).toHaveLength(5);
    press('Add All lamps lit to the song');
    expect(beat().song.order).toHaveLength(9);
    press('Take The stalls off the tray');
    expect(beat().tray).toHaveLength(4);
    press('Into the tray: A · the stalls');
    expect(beat().tray.at(-1)).toMatchObject({ name: 'A · the stalls', patternId: 'a' });
    const name = screen.getByLabelText('Name of Lights out in the tray');
    fireEvent.change(name, { target: { value: 'Dark stalls' } });
    fireEvent.blur(name);
    expect(beat().tray.map((item) => item.name)).toContain('Dark stalls');
  });

  test('an empty song says what it is for, and a form fills it', () => {
    open({ ...LANTERN, song: { sections: [], order: [] } });
    expect(screen.getByText(/A song is a row of sections/)).toBeTruthy();
    press('Begin with a form');
    press(/^16-bar loop/);
    expect(screen.getByText(/Lantern Walk · 16 bars/)).toBeTruthy();
    expect(notices().at(-1)).toBe('The song is now “16-bar loop”.');
  });

  test('a deleted pattern is named, and is silence', () => {
    const gone = {
      ...LANTERN,
      patterns: LANTERN.patterns.filter(({ id }) => id !== 'c'),
      song: {
        ...LANTERN.song,
        sections: LANTERN.song.sections.map((section) => ({
          ...section,
          entries: section.entries.map((entry) =>
            entry.patternId === 'c'
              ? { ...entry, gone: { name: 'C', meter: { beats: 4 as const, unit: 4 as const }, bars: 2 } }
              : entry,
          ),
        })),
      },
    };
    open(gone);
    expect(
      screen.getByText('Pattern “C” in section “Chorus” was deleted: it plays silence there.'),
    ).toBeTruthy();
    expect(screen.getByText('Lantern Walk · 76 bars, 3:19')).toBeTruthy();
  });

  test('switches that were recorded join the song when play stops', () => {
    mockHeard.splice(0, 2, { patternId: 'a', at: 10, tempo: 120 }, { patternId: 'c', at: 14, tempo: 120 });
    open();
    tab('Play live');
    expect(view().song.shown).toBe(false);
    toggled.mockImplementation(() => {
      store.dispatch(looked({ playing: !view().playing }));
    });
    press('Record the switches');
    press('Switch to C · all lamps lit');
    expect(view().patternId).toBe('c');
    press('Stop and keep it');
    expect(beat().song.order).toHaveLength(10);
    expect(notices().at(-1)).toContain('2 sections were added to the song');
  });

  test('who leaves while the switches are recorded keeps what was played so far', () => {
    open();
    mockHeard.splice(0, 2, { patternId: 'a', at: 10, tempo: 120 }, { patternId: 'c', at: 14, tempo: 120 });
    tab('Play live');
    toggled.mockImplementation(() => {
      store.dispatch(looked({ playing: !view().playing }));
    });
    tab('Tray');
    expect(beat().song.order).toHaveLength(8);
    tab('Play live');
    press('Record the switches');
    tab('Sections');
    expect(beat().song.order).toHaveLength(10);
    expect(notices().at(-1)).toContain('2 sections were added to the song');
    expect(view().playing).toBe(true);
  });

  test('what was kept on leaving the screen is not added once more when play stops, here or elsewhere', () => {
    for (const where of ['elsewhere', 'here']) {
      const { go, come } = open();
      mockHeard.splice(0, 2, { patternId: 'a', at: 10, tempo: 120 }, { patternId: 'c', at: 14, tempo: 120 });
      tab('Play live');
      toggled.mockImplementation(() => {
        store.dispatch(looked({ playing: !view().playing }));
      });
      press('Record the switches');
      go();
      expect(beat().song.order).toHaveLength(10);
      if (where === 'elsewhere') act(() => toggled());
      come();
      if (where === 'here') act(() => toggled());
      expect(view().playing).toBe(false);
      expect(beat().song.order).toHaveLength(10);
      expect(screen.getByRole('button', { name: 'Record the switches' })).toBeTruthy();
      cleanup();
    }
  });
});
