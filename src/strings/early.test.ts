/** @jest-environment jsdom */
import { looked } from '../store/looked.mock';
import { DEMO_BEATS } from '../../demo/beats';
import { beatOpened, stepSet } from '../store/doc';
import { createStore } from '../store/store';
import { EARLY_KEY, drawEarly, dropEarly, keepEarly, takeTaps } from '../web/early';
import { laneDrawing } from './drawings';
import { earlyOf } from './early';

const demo = DEMO_BEATS[0]!;
const opened = () => {
  const store = createStore();
  store.dispatch(beatOpened({ beat: demo }));
  store.dispatch(looked({ patternId: demo.patterns[0]!.id }));
  return store;
};
const place = () => {
  const room = document.createElement('div');
  room.id = 'strings-to-come';
  document.body.appendChild(room);
};
const cell = (lane: string, step: number) =>
  document.querySelector<HTMLElement>(`[data-early="${lane}"][data-at="${step}"]`)!;

beforeEach(() => {
  localStorage.clear();
  document.body.innerHTML = '';
});

test('the copy holds the first page as it is drawn: every step, where its bead stands, and how hard', () => {
  const { getState } = opened();
  const copy = earlyOf(getState())!;
  expect(copy.lanes.map(({ name }) => name)).toEqual(demo.lanes.map(({ name }) => name));
  demo.lanes.forEach((lane, at) => {
    const cells = laneDrawing(getState(), lane)!.cells.filter(({ left }) => left + 120 < copy.page);
    expect(copy.lanes[at]!.steps).toHaveLength(cells.length);
    copy.lanes[at]!.steps.forEach(([step, left, , velocity, x], which) => {
      expect(step).toBe(cells[which]!.step);
      expect(velocity).toBe(cells[which]!.velocity);
      expect(left).toBeCloseTo(cells[which]!.left, 0);
      if (velocity) expect(x).toBeCloseTo(cells[which]!.beads[0]!.x, 0);
    });
  });
  expect(JSON.stringify(copy).length).toBeLessThan(8000);
});

test('lanes of a folded group are not there, muted ones are faint', () => {
  const store = createStore();
  const [first, second] = demo.lanes;
  const beat = {
    ...demo,
    groups: [{ id: 'g', name: 'Skins', folded: true }],
    lanes: [{ ...first!, group: 'g' }, { ...second!, mute: true }, ...demo.lanes.slice(2)],
  };
  store.dispatch(beatOpened({ beat }));
  const copy = earlyOf(store.getState())!;
  expect(copy.lanes[0]).toMatchObject({ name: second!.name, silent: true });
});

test('taps are kept in the same breath and taken by the beat that they belong to, once', () => {
  place();
  drawEarly(earlyOf(opened().getState())!, EARLY_KEY);
  cell('kick', 1).click();
  cell('kick', 0).click();
  cell('kick', 1).click();
  expect(cell('kick', 0).getAttribute('aria-checked')).toBe('false');
  expect(takeTaps('another')).toEqual([]);
  expect(takeTaps(demo.id)).toEqual([
    {
      beat: demo.id,
      pattern: demo.patterns[0]!.id,
      taps: [
        { lane: 'kick', step: 1, on: true },
        { lane: 'kick', step: 0, on: false },
        { lane: 'kick', step: 1, on: false },
      ],
    },
  ]);
  expect(takeTaps(demo.id)).toEqual([]);
});

test('junk among what was tapped is no tap', () => {
  const of = (taps: unknown) => JSON.stringify({ beat: demo.id, pattern: 'a', taps });
  const junk = ['{', 'null', '[]', of(null), of([null]), of([{ lane: 'kick', step: -1, on: true }])];
  junk.push(of([{ lane: 'kick', step: 1.5, on: true }]), of([{ lane: 'kick', step: 1, on: 'yes' }]));
  junk.forEach((text, at) => localStorage.setItem(`${EARLY_KEY}/${at}`, text));
  expect(takeTaps(demo.id)).toEqual([]);
  expect(localStorage).toHaveLength(0);
});

test('where the small store takes nothing, taps are held by the page', () => {
  place();
  drawEarly(earlyOf(opened().getState())!, EARLY_KEY);
  const full = jest.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new Error('QuotaExceededError');
  });
  const barred = jest.spyOn(Storage.prototype, 'removeItem').mockImplementation(() => {
    throw new Error('SecurityError');
  });
  const keys = jest.spyOn(Object, 'keys').mockImplementationOnce(() => {
    throw new Error('SecurityError');
  });
  cell('kick', 1).click();
  expect(takeTaps(demo.id)[0]?.taps).toEqual([{ lane: 'kick', step: 1, on: true }]);
  for (const spy of [full, barred, keys]) spy.mockRestore();
});

test('the own beat is shown where a copy of it lies there, the demo beat where it is junk', () => {
  const store = opened();
  const first = earlyOf(store.getState())!;
  const patternId = demo.patterns[0]!.id;
  store.dispatch(stepSet({ patternId, laneId: 'kick', step: 1, on: true }));
  keepEarly(earlyOf(store.getState())!);
  place();
  drawEarly(first, EARLY_KEY);
  expect(cell('kick', 1).getAttribute('aria-checked')).toBe('true');
  for (const junk of ['{', 'null', '3', '{"form":2}']) {
    document.querySelector('.early')?.remove();
    localStorage.setItem(EARLY_KEY, junk);
    drawEarly(first, EARLY_KEY);
    expect(cell('kick', 1).getAttribute('aria-checked')).toBe('false');
  }
});

test('it goes when the strings are there, and cannot be reached any more meanwhile', async () => {
  place();
  drawEarly(earlyOf(opened().getState())!, EARLY_KEY);
  dropEarly();
  expect(document.querySelector('.early')!.getAttribute('aria-hidden')).toBe('true');
  await new Promise((resolve) => setTimeout(resolve, 100));
  expect(document.querySelector('.early')).toBeNull();
  dropEarly();
});
