/** @jest-environment jsdom */
import { looked } from '../../store/looked.mock';
import { act, fireEvent, render, screen, within } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { newBeat, lanePatternOf } from '../../../core/document/defaults';
import { setStep } from '../../../core/edit/hits';
import { beatEdited, beatOpened, patternsEdited, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { selectAudible } from '../../store/audible';
import { libraryRead, noticed } from '../../store/slices';
import { SayContext } from '../../ui/say';
import { BringSheet } from './BringSheet';
import { PlayContext } from '../../ui/playing';
import { GroupRow } from '../../strings/GroupRow';
import { PatternsSheet } from './PatternsSheet';
import { pageFits } from '../../ui/width.mock';
import { loadEdits } from '../../store/deferredEdits';

beforeAll(loadEdits);

const mockOther = newBeat('other', 'Ferry', 2);
jest.mock('../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: ReactNode }) => (
    <section aria-label={title}>{children}</section>
  ),
}));
jest.mock('../../web/SortableLater', () => jest.requireActual('../../web/SortableLater.mock'));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore(), persistence: { beat: () => Promise.resolve(mockOther) } };
});

const beat = () => store.getState().doc.beat!;
const shown = () => beat().patterns.find(({ id }) => id === store.getState().focus.patternId)!;
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const type = (label: string, value: string) => {
  const field = screen.getByLabelText(label);
  fireEvent.change(field, { target: { value } });
  fireEvent.keyDown(field, { key: 'Enter' });
  fireEvent.blur(field);
};
const show = (what: ReactNode) =>
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        {what}
      </SayContext>
    </Provider>,
  );

beforeEach(() => {
  pageFits(true);
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  const one = newBeat('b', 'Quay', 1);
  store.dispatch(beatOpened({ beat: { ...one, patterns: [setStep(one.patterns[0]!, 'kick', 0, true)] } }));
  store.dispatch(looked({ patternId: 'a', also: [], selection: [], cursor: null, openLane: null }));
});

describe('the patterns of a beat', () => {
  const played = jest.fn();
  const preset = (value: string) =>
    fireEvent.change(screen.getByRole('combobox', { name: 'Preset for the whole pattern' }), {
      target: { value },
    });
  beforeEach(() => {
    played.mockClear();
    show(
      <PlayContext value={played}>
        <PatternsSheet onClose={() => undefined} />
      </PlayContext>,
    );
  });

  test('a new one is empty, a variation is the same and knows its parent', () => {
    press('New pattern');
    expect(shown()).toMatchObject({ name: 'B', parts: {} });
    press('Show A');
    press('Variation of A');
    expect(shown()).toMatchObject({ parent: 'a', name: 'C of A' });
    expect(lanePatternOf(shown(), 'kick').hits).toHaveLength(1);
    expect(screen.getByText(/varies A/)).toBeTruthy();
  });

  test('length and meter are held to their ranges and said; what lies beyond comes back', () => {
    type('Bars', '40');
    expect(shown().bars).toBe(16);
    expect(store.getState().notices.at(-1)!.text).toContain('40 became 16');
    type('Bars', '2');
    act(
      () =>
        void store.dispatch(
          patternsEdited({
            patternIds: ['a'],
            edit: { edit: 'fillEvery', args: { laneIds: ['kick'], every: 4, from: 0, to: 90 } },
          }),
        ),
    );
    type('Bars', '1');
    type('Bars', '2');
    expect(lanePatternOf(shown(), 'kick').hits).toHaveLength(8);
    type('Beats of a bar', '7');
    fireEvent.change(screen.getByRole('combobox', { name: 'Note value of a beat' }), {
      target: { value: '8' },
    });
    expect(shown().meter).toEqual({ beats: 7, unit: 8 });
    type('Beats of a bar', '99');
    expect(shown().meter.beats).toBe(21);
  });

  test('they are named, coloured, ordered and deleted; the last one stays', () => {
    expect(screen.getByRole('button', { name: 'Delete pattern' })).toHaveProperty('disabled', true);
    type('Name of the pattern', 'Gangway');
    press('New pattern');
    press('Put A first');
    expect(beat().patterns.map(({ name }) => name)).toEqual(['A', 'Gangway']);
    fireEvent.change(screen.getByRole('combobox', { name: 'Colour of the pattern' }), {
      target: { value: 'weld' },
    });
    expect(shown().pigment).toBe('weld');
    press('Delete pattern');
    expect(beat().patterns.map(({ name }) => name)).toEqual(['Gangway']);
  });

  test('the same twice is twice as long', () => {
    press('Twice as long, the same twice');
    expect(shown().bars).toBe(2);
    expect(lanePatternOf(shown(), 'kick').hits.map(({ step }) => step)).toEqual([0, 16]);
  });

  test('a preset that is used fills the pattern, brings its lanes, and one undo takes both back', () => {
    const before = beat();
    preset('hands-only');
    expect(beat()).toBe(before);
    press('Use it');
    expect(beat().lanes.some(({ instrument }) => instrument === 'conga.open')).toBe(true);
    act(() => void store.dispatch(undone()));
    expect(beat()).toBe(before);
  });

  test('presets are heard one in the place of the other, and left or used', () => {
    const before = beat();
    const heard = () => selectAudible(store.getState())!;
    preset('hands-only');
    press('Hear it');
    expect(played).toHaveBeenCalledTimes(1);
    preset('quay-march');
    expect(heard().lanes.some(({ instrument }) => instrument === 'conga.open')).toBe(false);
    expect(lanePatternOf(heard().patterns[0]!, 'snare').hits).toHaveLength(16);
    press('Discard');
    expect(beat()).toBe(before);
    expect(heard()).toBe(before);
    preset('quay-march');
    press('Use it');
    expect(screen.queryByRole('button', { name: 'Use it' })).toBeNull();
    expect(lanePatternOf(shown(), 'snare').hits).toHaveLength(16);
    // What was used is not touched by the next try.
    preset('hands-only');
    press('Discard');
    expect(lanePatternOf(shown(), 'snare').hits).toHaveLength(16);
  });

  test('an edit is sent to all that are chosen', () => {
    press('New pattern');
    press('Edit several at once');
    fireEvent.click(screen.getByRole('checkbox', { name: 'Edit A too' }));
    expect(store.getState().focus.also).toEqual(['a']);
    press('Edit several at once');
    expect(store.getState().focus.also).toEqual([]);
  });
});

describe('a group of lanes', () => {
  const group = () => beat().groups[0]!;
  beforeEach(() => {
    store.dispatch(
      beatEdited({
        edit: { edit: 'groupLanes', args: { id: 'g', name: 'Drums', laneIds: ['kick', 'clap'] } },
      }),
    );
    show(<GroupRow group={group()} lanes={beat().lanes} />);
  });

  test('its lanes stand together and are folded away together', () => {
    expect(
      beat()
        .lanes.slice(0, 2)
        .map(({ id }) => id),
    ).toEqual(['kick', 'clap']);
    press('Drums');
    expect(group().folded).toBe(true);
  });

  test('they are muted together, and all their hits chosen', () => {
    press('Mute Drums');
    expect(
      beat()
        .lanes.filter(({ mute }) => mute)
        .map(({ id }) => id),
    ).toEqual(['kick', 'clap']);
    press('Choose all hits of Drums');
    expect(store.getState().focus.selection).toEqual([{ laneId: 'kick', step: 0 }]);
  });
});

test('lanes of another beat are brought in under ids of their own', async () => {
  const summary = { tempo: 100, meter: '4/4', bars: 1, saved: 0 };
  store.dispatch(
    libraryRead({
      beats: [
        { id: 'b', name: 'Quay', ...summary },
        { id: 'other', name: 'Ferry', ...summary },
      ],
      aside: [],
    }),
  );
  const closed = jest.fn();
  show(<BringSheet onClose={closed} />);
  const choice = screen.getByRole('combobox', { name: 'Beat to take lanes from' });
  expect(within(choice).queryByText('Quay')).toBeNull();
  await act(async () => {
    fireEvent.change(choice, { target: { value: 'other' } });
    await Promise.resolve();
  });
  fireEvent.click(screen.getByRole('checkbox', { name: 'Snare' }));
  press('Bring them in');
  expect(beat().lanes).toHaveLength(11);
  expect(beat().lanes.at(-1)).toMatchObject({ instrument: 'snare' });
  expect(beat().lanes.at(-1)!.id).not.toBe('snare');
  expect(closed).toHaveBeenCalled();
});
