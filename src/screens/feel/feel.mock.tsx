import { looked } from '../../store/looked.mock';
import { act, configure, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import type { Feel } from '../../../core/document/feelSchema';
import { setStep, setVelocity } from '../../../core/edit/hits';
import { beatOpened } from '../../store/doc';
import { store } from '../../keeping/session';
import { noticed } from '../../store/slices';
import { selectFeel } from '../../store/store';
import { SayContext } from '../../ui/say';
import { keep } from '../../ui/useKept';
import { slideTo } from '../../ui/slide.mock';
import { FeelScreen } from './FeelScreen';
import { pageFits } from '../../ui/width.mock';

// The whole screen is rendered, which takes a busy machine its time.
/** What was saved to files: by name. */
export const mockSaved: [string, unknown][] = [];
jest.mock('../../ui/files', () => ({
  saveText: (text: string, name: string) => mockSaved.push([name, text]),
  saveBytes: (bytes: Uint8Array, name: string) => mockSaved.push([name, bytes]),
}));
jest.mock('../../audio/player', () => ({
  strikeLane: () => Promise.resolve(),
  playedTick: () => null,
  playedPattern: () => null,
  takeHeard: () => [],
  msToNextHeard: () => null,
  hearPeaks: () => () => undefined,
}));
jest.mock('../../workers/aside');
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  return { store: createStore() };
});
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../keeping/storage', () => {
  const { memory } = jest.requireActual<typeof import('../../keeping/storage.mock')>(
    '../../keeping/storage.mock',
  );
  const one = memory();
  return { browserStorage: () => one };
});
jest.mock('./VelocityCharts', () => ({ VelocityCharts: () => null }));
jest.mock('./TimingChart', () => ({ TimingChart: () => null }));
jest.mock('../../workers/askReport', () => {
  const { reportOf } = jest.requireActual<typeof import('../../workers/reportOf')>('../../workers/reportOf');
  return { askReport: (source: Parameters<typeof reportOf>[0]) => Promise.resolve(reportOf(source)) };
});

configure({ asyncUtilTimeout: 60000 });

export const feel = (): Feel => selectFeel(store.getState())!;
export const beat = () => store.getState().doc.beat!;
export const notices = () => store.getState().notices.map(({ text }) => text);
export const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
export const tick = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name }));
export const page = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
export const slide = slideTo;
export const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
export const give = (name: string, files: File[]) =>
  fireEvent.change(screen.getByLabelText(name), { target: { files } });
export const look = (change: Parameters<typeof looked>[0]) => act(() => void store.dispatch(looked(change)));
/** jsdom's files cannot be read as bytes. */
export const fileOf = (name: string, bytes: Uint8Array | string): File => {
  const data = typeof bytes === 'string' ? new TextEncoder().encode(bytes) : bytes;
  const file = new File([], name);
  file.arrayBuffer = () => Promise.resolve(data.slice().buffer);
  return file;
};

/** The screen, with a beat that is small and full enough. */
export const openFeel = (): void => {
  keep('feel page', 'stages');
  mockSaved.length = 0;
  pageFits(false);
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  } as never;
  const blank = newBeat('b', 'Quay', 1);
  let pattern = blank.patterns[0]!;
  for (const step of [0, 2, 3, 6, 8, 11, 14]) pattern = setStep(pattern, 'hat.closed', step, true);
  for (const step of [4, 12]) pattern = setStep(pattern, 'snare', step, true);
  pattern = setVelocity(setStep(pattern, 'kick', 0, true), 'kick', 0, 110);
  store.dispatch(beatOpened({ beat: { ...blank, patterns: [pattern] } }));
  store.dispatch(
    looked({ patternId: 'a', openLane: null, selection: [], cursor: null, compare: null, b: null }),
  );
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <FeelScreen />
      </SayContext>
    </Provider>,
  );
};
