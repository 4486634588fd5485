import { looked } from '../../../../store/looked.mock';
import fc from 'fast-check';
import { newBeat } from '../../../../../core/document/defaults';
import { selectAudible } from '../../../../store/audible';
import { beatOpened } from '../../../../store/doc';
import { createStore } from '../../../../store/store';
import { endPractice, practiceTempo, practise, type PracticePlan } from './practice';

const plans = fc.record({
  from: fc.integer({ min: 20, max: 300 }),
  to: fc.integer({ min: 20, max: 300 }),
  by: fc.integer({ min: 1, max: 40 }),
  every: fc.integer({ min: 1, max: 16 }),
});

test('it begins at the first tempo, never goes past the last, and gets there', () => {
  fc.assert(
    fc.property(plans, fc.integer({ min: 0, max: 400 }), (plan, bars) => {
      const [low, high] = [Math.min(plan.from, plan.to), Math.max(plan.from, plan.to)];
      const now = practiceTempo(plan, bars);
      expect(practiceTempo(plan, 0)).toBe(plan.from);
      expect(now >= low && now <= high).toBe(true);
      expect(practiceTempo(plan, 400 * plan.every)).toBe(plan.to);
      expect(Math.abs(practiceTempo(plan, bars + plan.every) - now)).toBeLessThanOrEqual(plan.by);
    }),
    { seed: 19 },
  );
});

describe('in the app', () => {
  const plan: PracticePlan = { from: 60, to: 70, by: 5, every: 2 };
  const open = () => {
    const store = createStore();
    store.dispatch(beatOpened({ beat: newBeat('b', 'Ferry', 7) }));
    store.dispatch(looked({ patternId: store.getState().doc.beat!.patterns[0]!.id }));
    return store;
  };
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => {
    endPractice();
    jest.useRealTimers();
  });

  it('is heard slower, faster bar by bar, and leaves the beat as it is', () => {
    const store = open();
    const own = store.getState().doc.beat!;
    let tick: number | null = null;
    practise(store, plan, () => tick);
    expect(selectAudible(store.getState())!.tempo).toBe(60);
    store.dispatch(looked({ playing: true }));
    const tempos = [0, 1, 2, 3, 4, 99].map((bar) => {
      tick = bar * 3840;
      jest.advanceTimersByTime(100);
      return selectAudible(store.getState())!.tempo;
    });
    expect(tempos).toEqual([60, 60, 65, 65, 70, 70]);
    expect(store.getState().doc.beat).toBe(own);
    endPractice();
    expect(selectAudible(store.getState())).toBe(own);
  });

  it('ends when another beat is opened, and goes back to the slow tempo when play stops', () => {
    const store = open();
    practise(store, plan, () => 4 * 3840);
    store.dispatch(looked({ playing: true }));
    jest.advanceTimersByTime(100);
    expect(store.getState().transport.practice).toBe(70);
    store.dispatch(looked({ playing: false }));
    jest.advanceTimersByTime(100);
    expect(store.getState().transport.practice).toBe(60);
    store.dispatch(beatOpened({ beat: newBeat('c', 'Tarps', 8) }));
    jest.advanceTimersByTime(100);
    expect(store.getState().transport.practice).toBeNull();
  });
});
