import { looked } from '../../../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat, lanePatternOf, patternOf } from '../../../../core/document/defaults';
import type { Hit, LanePattern } from '../../../../core/document/schema';
import { setStep, setVelocity } from '../../../../core/edit/hits';
import { beatOpened } from '../../../store/doc';
import { store } from '../../../keeping/session';
import { noticed } from '../../../store/slices';
import { PlayContext } from '../../../ui/playing';
import { SayContext } from '../../../ui/say';
import { Drawer } from './Drawer';
import { mockPlayer } from './player.mock';
import { pageFits } from '../../../ui/width.mock';

export const toggled = jest.fn();
export const pattern = () => patternOf(store.getState().doc.beat!, null);
export const part = (laneId = 'kick'): LanePattern => lanePatternOf(pattern(), laneId);
export const hit = (at = 0, laneId = 'kick'): Hit => part(laneId).hits[at]!;
export const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
export const choose = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
export const page = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));
export const look = (change: Parameters<typeof looked>[0]) => act(() => void store.dispatch(looked(change)));

/** Opens the drawer on a beat whose kick has two hits. */
export const openDrawer = () => {
  mockPlayer.heard = null;
  mockPlayer.strikes.length = 0;
  toggled.mockClear();
  // Wide enough for one panel.
  pageFits((query) => query.includes('1024'));
  HTMLCanvasElement.prototype.getContext = (() => null) as never;
  const beat = newBeat('b', 'Quay', 1);
  const first = setStep(setStep(beat.patterns[0]!, 'kick', 0, true), 'kick', 8, true);
  const patterns = [setVelocity(first, 'kick', 8, 60)];
  store.dispatch(beatOpened({ beat: { ...beat, patterns } }));
  store.dispatch(
    looked({
      patternId: 'a',
      openLane: 'kick',
      selection: [],
      cursor: null,
      clip: null,
      drawer: 'hits',
      scope: 'hits',
      trial: null,
      pasteAt: null,
    }),
  );
  render(
    <Provider store={store}>
      <SayContext value={(text, subject) => void store.dispatch(noticed({ text, subject }))}>
        <PlayContext value={toggled}>
          <Drawer wide />
        </PlayContext>
      </SayContext>
    </Provider>,
  );
};
