/** @jest-environment jsdom */
import { act, fireEvent, screen } from '@testing-library/react';
import { lanePatternOf, patternOf } from '../../../../../core/document/defaults';
import { beatEdited, patternsEdited, undone } from '../../../../store/doc';
import { store } from '../../../../keeping/session';
import { slideTo as slide } from '../../../../ui/slide.mock';
import { hit, look, openDrawer, page, part, pattern, press, toggled } from '../drawer.mock';
import { mockPlayer } from '../player.mock';
import { loadEdits } from '../../../../store/deferredEdits';

beforeAll(loadEdits);

jest.mock('../../../../audio/player', () => jest.requireActual('../player.mock'));
jest.mock('../../../../web/SortableLater', () => jest.requireActual('../../../../web/SortableLater.mock'));
jest.mock('../../../../keeping/session', () => {
  const { createStore } =
    jest.requireActual<typeof import('../../../../store/store')>('../../../../store/store');
  return { store: createStore(), persistence: { takeIn: jest.fn() } };
});

beforeEach(openDrawer);

describe('the pads', () => {
  beforeEach(() => page('Pads'));
  const key = (code: string, more: object = {}) => fireEvent.keyDown(document.body, { code, ...more });

  test('pads and keys sound their lanes; with Shift a key is an accent', () => {
    fireEvent.click(screen.getByRole('button', { name: /^Play Snare, / }), { detail: 0 });
    key('KeyA');
    key('KeyS', { shiftKey: true });
    expect(mockPlayer.strikes).toEqual([
      ['snare', 100],
      ['kick', 96],
      ['snare', 120],
    ]);
  });

  test('what is played while it records is taken down with its exact time', () => {
    press('Record');
    look({ playing: true });
    mockPlayer.heard = 5 * 240 + 60;
    key('KeyS');
    expect(hit(0, 'snare')).toMatchObject({ step: 5, nudge: expect.closeTo(0.25) });
    slide('Quantize what is played in', 100);
    mockPlayer.heard = 10 * 240 + 60;
    key('KeyS');
    expect(hit(1, 'snare')).toMatchObject({ step: 10, nudge: 0 });
    act(() => void store.dispatch(undone()));
    expect(part('snare').hits).toEqual([]);
    look({ playing: false });
    press('Record');
  });

  test('recorded in the place of what was there, only what is passed over goes', () => {
    act(
      () =>
        void store.dispatch(
          patternsEdited({
            patternIds: [pattern().id],
            edit: { edit: 'fillEvery', args: { laneIds: ['snare'], every: 2, from: 0, to: 50 } },
          }),
        ),
    );
    const steps = () => part('snare').hits.map(({ step, velocity }) => [step, velocity]);
    press('Record');
    press('Replace');
    look({ playing: true });
    mockPlayer.heard = 4 * 240;
    key('KeyS');
    // One stroke takes away no more than what stands on its own step.
    expect(steps()).toEqual([0, 2, 4, 6, 8, 10, 12, 14].map((step) => [step, step === 4 ? 96 : 50]));
    mockPlayer.heard = 9 * 240;
    key('KeyS');
    expect(steps()).toEqual([
      [0, 50],
      [2, 50],
      [4, 96],
      [9, 96],
      [10, 50],
      [12, 50],
      [14, 50],
    ]);
    // Round the loop the recording's own strokes stay.
    mockPlayer.heard = (16 + 5) * 240;
    key('KeyS');
    expect(steps()).toEqual([4, 5, 9].map((step) => [step, 96]));
    press('Replace');
    look({ playing: false });
    press('Record');
  });

  test('Space plays what is armed to record, and it records', () => {
    press('Record');
    toggled.mockClear();
    key('Space');
    expect(toggled).toHaveBeenCalledTimes(1);
    expect(store.getState().input.playIn.recording).toBe(true);
    press('Record');
  });

  test('a key that is held repeats on the grid: by hand, or taken down on the steps', () => {
    jest.useFakeTimers();
    const rests = () => act(() => void jest.advanceTimersByTime(350));
    fireEvent.change(screen.getByLabelText('Repeat what is held'), { target: { value: '1/16' } });
    key('KeyS');
    // Two sixteenths of the tempo and a little more.
    rests();
    fireEvent.keyUp(document.body, { code: 'KeyS' });
    rests();
    expect(mockPlayer.strikes.map(([lane]) => lane)).toEqual(['snare', 'snare', 'snare']);
    press('Record');
    look({ playing: true });
    // A little early and off the step: it stands on it, as its repeats do.
    mockPlayer.heard = 4 * 240 - 40;
    key('KeyS');
    mockPlayer.heard = 5 * 240 + 10;
    rests();
    mockPlayer.heard = 6 * 240 + 10;
    rests();
    fireEvent.keyUp(document.body, { code: 'KeyS' });
    rests();
    expect(part('snare').hits.map(({ step, nudge }) => [step, nudge])).toEqual([
      [4, expect.closeTo(0)],
      [5, 0],
      [6, 0],
    ]);
    fireEvent.change(screen.getByLabelText('Repeat what is held'), { target: { value: 'off' } });
    look({ playing: false });
    press('Record');
    jest.useRealTimers();
  });

  test('what is struck while another pattern is heard goes into that one', () => {
    act(
      () =>
        void store.dispatch(
          beatEdited({ edit: { edit: 'addPattern', args: { id: 'next', like: pattern() } } }),
        ),
    );
    press('Record');
    look({ playing: true, patternId: 'next' });
    mockPlayer.heard = 4 * 240;
    mockPlayer.pattern = 'a';
    key('KeyS');
    const of = (id: string) => lanePatternOf(patternOf(store.getState().doc.beat!, id), 'snare').hits;
    expect(of('a').map(({ step }) => step)).toEqual([4]);
    expect(of('next')).toEqual([]);
    mockPlayer.pattern = 'next';
    key('KeyS');
    expect(of('next').map(({ step }) => step)).toEqual([4]);
    mockPlayer.pattern = null;
    look({ playing: false, patternId: 'a' });
    press('Record');
  });

  test('notes of a MIDI input strike the lanes that have them, with their velocity', () => {
    press('MIDI input');
    const note = (detail: unknown) =>
      act(() => void window.dispatchEvent(new CustomEvent('ruddik-note', { detail })));
    note({ note: 38, velocity: 71 });
    expect(mockPlayer.strikes).toEqual([['snare', 71]]);
    note(3);
    expect(store.getState().notices.at(-1)!.text).toBe('No lane has note 3.');
    press('MIDI input');
    note(38);
    expect(mockPlayer.strikes).toHaveLength(1);
  });

  test('Space while it records stops, and the recording stays armed', () => {
    press('Record');
    look({ playing: true });
    const chip = screen.getByRole('button', { name: 'Record' });
    chip.focus();
    expect(fireEvent.keyDown(chip, { code: 'Space', key: ' ' })).toBe(false);
    expect(toggled).toHaveBeenCalledTimes(1);
    expect(store.getState().input.playIn.recording).toBe(true);
    look({ playing: false });
    press('Record');
  });

  test('step by step a key puts a hit and goes on, Space is a rest', () => {
    press('Step by step');
    look({ cursor: { laneId: 'snare', step: 0 } });
    const up = (code: string) => fireEvent.keyUp(document.body, { code });
    key('KeyS');
    up('KeyS');
    key('Space');
    // Held together, two drums stand on one step.
    key('KeyA');
    key('KeyS');
    up('KeyA');
    up('KeyS');
    key('KeyS');
    up('KeyS');
    expect(part('snare').hits.map(({ step }) => step)).toEqual([0, 2, 3]);
    expect(part().hits.map(({ step }) => step)).toContain(2);
    press('Step by step');
  });

  test('the tempo of a tapping hand', () => {
    const tap = screen.getByRole('button', { name: 'Tap tempo' });
    for (const time of [1000, 1500, 2000, 2500]) {
      const event = new MouseEvent('pointerdown', { bubbles: true });
      Object.defineProperty(event, 'timeStamp', { value: time });
      fireEvent(tap, event);
    }
    expect(store.getState().doc.beat!.tempo).toBe(120);
  });
});
