/** @jest-environment jsdom */
import { lookedAt } from '../../store/looked.mock';
// First: what it stands in for is not loaded before.
import { beat, choose, feel, fileOf, give, look, notices, openFeel, page, press } from './feel.mock';
import { act, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { TEMPLATES } from '../../../core/feel/templates';
import { store } from '../../keeping/session';
import { stepSet, swingSet, tempoSet, undone } from '../../store/doc';
import { selectAudible } from '../../store/audible';

// The whole screen is rendered, which takes a busy machine its time.
jest.setTimeout(240000);

beforeEach(openFeel);

describe('comparing', () => {
  test('a held button or key plays it without feel; let go, it is as it was', () => {
    press('Swing of all lanes: triplet');
    page('Compare');
    const hold = screen.getByRole('button', { name: 'Hold to hear it without any feel' });
    fireEvent.keyDown(hold, { key: ' ' });
    expect(store.getState().comparing.compare).toBe('bare');
    expect(selectAudible(store.getState())!.patterns[0]!.feel!.swing.percent).toBe(50);
    expect(screen.getByRole('status').textContent).toBe('Without feel');
    fireEvent.keyUp(hold, { key: ' ' });
    expect(selectAudible(store.getState())).toBe(beat());
    fireEvent.keyDown(window, { key: 'c' });
    expect(store.getState().comparing.compare).toBe('bare');
    fireEvent.keyUp(window, { key: 'c' });
    expect(store.getState().comparing.compare).toBeNull();
  });

  test('C plays what the page compares with', () => {
    look({ b: { name: 'Late', feel: feel() }, against: 'bare' });
    fireEvent.keyDown(window, { key: 'c' });
    expect(store.getState().comparing.compare).toBe('bare');
    fireEvent.keyUp(window, { key: 'c' });
    look({ against: 'b' });
    fireEvent.keyDown(window, { key: 'c' });
    expect(store.getState().comparing.compare).toBe('b');
    fireEvent.keyUp(window, { key: 'c' });
    look({ b: null, against: 'bare' });
  });

  describe('blind', () => {
    const html = () => screen.getByTestId('feel screen').outerHTML;
    const hearBoth = () => {
      press('Hear the second');
      act(() => void jest.advanceTimersByTime(1000));
      press('Hear the first');
      act(() => void jest.advanceTimersByTime(1000));
    };
    const right = () =>
      press(store.getState().comparing.compare === 'self' ? 'The first has the feel' : 'The second has it');
    beforeEach(() => {
      jest.useFakeTimers();
      page('Compare');
      press('Begin a blind test');
      look({ playing: true });
    });
    afterEach(() => {
      jest.useRealTimers();
      look({ playing: false, blindTest: null });
    });

    test('the page is the same whichever of the two has the feel', () => {
      const pages = new Map<boolean, string>();
      for (let round = 0; round < 40 && pages.size < 2; round++) {
        const { feelFirst } = store.getState().comparing.blindTest!;
        pages.set(feelFirst, html());
        press('End the test');
        press('Begin a blind test');
      }
      expect(pages.size).toBe(2);
      expect(pages.get(true)).toBe(pages.get(false));
      expect(screen.queryByText(/^(Without feel|As “)/)).toBeNull();
      expect(screen.queryByRole('button', { name: /^Hold to hear/ })).toBeNull();
      expect(screen.queryByRole('slider', { name: 'Swing hinge' })).toBeNull();
      expect(screen.getByRole('tab', { name: 'Charts' }).getAttribute('aria-disabled')).toBe('true');
    });

    test('an answer counts once both were heard, while it plays', () => {
      const given = () => screen.getByRole('button', { name: 'The first has the feel' });
      expect(given()).toHaveProperty('disabled', true);
      act(() => void jest.advanceTimersByTime(5000));
      expect(given()).toHaveProperty('disabled', true);
      press('Hear the second');
      look({ playing: false });
      act(() => void jest.advanceTimersByTime(5000));
      expect(given()).toHaveProperty('disabled', true);
      look({ playing: true });
      act(() => void jest.advanceTimersByTime(1000));
      expect(given()).toHaveProperty('disabled', false);
      fireEvent.click(given());
      expect(given()).toHaveProperty('disabled', true);
      expect(screen.getByText('Round 2 of 12')).toBeTruthy();
    });

    test('a feel that is changed meanwhile, by undo or a controller, starts it anew; what is heard alike does not', () => {
      hearBoth();
      right();
      hearBoth();
      right();
      const round = () => screen.getByText(/^Round \d+ of 12$/).textContent;
      act(() => void store.dispatch(tempoSet({ tempo: 97 })));
      act(() => void store.dispatch(stepSet({ patternId: 'a', laneId: 'kick', step: 3, on: true })));
      expect(round()).toBe('Round 3 of 12');
      act(() => void store.dispatch(swingSet({ patternId: 'a', change: { percent: 60 } })));
      expect(round()).toBe('Round 1 of 12');
      expect(notices().at(-1)).toBe('The feel changed, so the test starts over.');
      hearBoth();
      right();
      expect(round()).toBe('Round 2 of 12');
      act(() => void store.dispatch(undone()));
      expect(round()).toBe('Round 1 of 12');
      expect(store.getState().comparing.blindTest).toMatchObject({ right: 0, of: 0 });
    });

    test('twelve rounds make a verdict; the tally of an ended one is kept, without a verdict', async () => {
      for (let round = 0; round < 12; round++) {
        expect(screen.queryByText(/^Right/)).toBeNull();
        hearBoth();
        right();
      }
      expect(
        screen.getByText(/Right 12 of 12\. Guessing .* fewer than 1 of 100 tests: you hear it/),
      ).toBeTruthy();
      expect(lookedAt(store.getState())).toMatchObject({ compare: null, blind: false, blindTest: null });
      press('Begin a blind test');
      hearBoth();
      right();
      page('Compare');
      press('End the test');
      expect(screen.getByText('Ended after 1 of 12 rounds: that is no verdict.')).toBeTruthy();
      jest.useRealTimers();
      fireEvent.click(await screen.findByText('Tests so far: 2'));
      expect(screen.getByText(/right 1 of 1, ended early/)).toBeTruthy();
    });
  });
});

describe('seeing it', () => {
  test('the timing is said in words and lane by lane', () => {
    press('Swing of all lanes: septuplet');
    page('Charts');
    expect(screen.getByText(/The feel moves hits \d/)).toBeTruthy();
    const snare = screen.getByRole('row', { name: /^Snare/ });
    expect(
      within(snare)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['0.0', '0.0', '0.0', 'machine-tight']);
  });

  test('the report of the pattern, set against a template, with their differences', async () => {
    press('Swing of all lanes: septuplet');
    page('Report');
    const report = await screen.findByRole('region', { name: 'Report: A' });
    await waitFor(() => expect(report.textContent).toContain('40 notes in 4 bars'));
    expect(within(report).getByRole('row', { name: /^Snare 8 on the grid/ })).toBeTruthy();
    choose('Set it against', TEMPLATES[0]!.id);
    expect(await screen.findByRole('region', { name: 'Differences' })).toBeTruthy();
    choose('Report of', TEMPLATES[1]!.id);
    expect(await screen.findByRole('region', { name: `Report: ${TEMPLATES[1]!.name}` })).toBeTruthy();
    give('Open a MIDI file to set it against', [fileOf('odd.mid', 'nothing')]);
    const odd = await screen.findByRole('region', { name: 'Set against: odd.mid' });
    await waitFor(() => expect(odd.textContent).toContain('MIDI'));
  });
});
