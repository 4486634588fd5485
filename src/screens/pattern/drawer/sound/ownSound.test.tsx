/** @jest-environment jsdom */
import { looked } from '../../../../store/looked.mock';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../../../core/document/defaults';
import * as edits from '../../../../../core/edit/edits';
import { beatEdited, beatOpened, giveEdits, undone } from '../../../../store/doc';
import { store } from '../../../../keeping/session';
import { LoopSheet } from '../../loop/LoopSheet';
import { OwnSoundPart } from './OwnSound';
import { pageFits } from '../../../../ui/width.mock';

const mockHeard: string[] = [];
const mockSample = (file: string) => ({
  id: file.charCodeAt(0).toString(16).padEnd(64, '0'),
  file,
  seconds: 2,
});
const mockWave = { low: [-1, 0], high: [1, 0], seconds: 2, attack: 0.05 };
const mockOnsets = [0, 0.5, 1, 1.5].map((at) => ({ at, strength: at ? 0.5 : 1 }));
const mockDesk = {
  takeIn: (files: { name: string }[]) =>
    Promise.resolve({ samples: files.map(({ name }) => mockSample(name)), said: [] }),
  shaped: ({ reverse }: { reverse?: boolean }) =>
    Promise.resolve({ ...mockWave, attack: reverse ? 0.3 : mockWave.attack }),
  wave: (id: string) => Promise.resolve(id.startsWith('67') ? null : mockWave),
  found: (_: string, sensitivity: number) =>
    Promise.resolve({
      onsets: mockOnsets.slice(0, sensitivity < 50 ? 2 : 4),
      tempos: [
        { bars: 1, bpm: 120, likely: 0.7 },
        { bars: 2, bpm: 240, likely: 0.3 },
      ],
      seconds: 2,
    }),
  kinds: () =>
    Promise.resolve(
      ['kick', 'hat.closed', 'snare', 'hat.closed'].map((instrument) => ({ instrument, velocity: 90 })),
    ),
  shippedLoop: () => Promise.resolve({ samples: [mockSample('rain.wav')], said: [] }),
  fitting: () => Promise.resolve([{ kit: 'attic', instrument: 'kick' }]),
};
jest.mock('../../../../workers/askOwn', () => ({
  askDesk: (call: (far: unknown) => Promise<unknown>) => call(mockDesk),
}));
jest.mock('../../../../audio/player', () => ({
  hearLane: (_: unknown, lane: { name: string }, __: number, pitch?: number) => {
    mockHeard.push(`${lane.name} ${pitch ?? ''}`.trim());
    return Promise.resolve();
  },
}));
jest.mock('../../../../keeping/session', () => {
  const { createStore } =
    jest.requireActual<typeof import('../../../../store/store')>('../../../../store/store');
  return { store: createStore() };
});
jest.mock('../../../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: unknown }) => (
    <section aria-label={title}>{children as never}</section>
  ),
}));

const beat = () => store.getState().doc.beat!;
const lane = () => beat().lanes[0]!;
const settle = () => act(() => new Promise((resolve) => setTimeout(resolve, 30)));
const press = async (name: string) => {
  fireEvent.click(screen.getByRole('button', { name }));
  await settle();
};
const choose = async (label: string, names: string[]) => {
  const files = names.map((name) =>
    Object.assign(new File([], name), { arrayBuffer: () => Promise.resolve(new ArrayBuffer(4)) }),
  );
  fireEvent.change(screen.getByLabelText(label), { target: { files } });
  await settle();
};
const pick = (name: string, value: string) =>
  fireEvent.change(screen.getByRole('combobox', { name }), { target: { value } });
const Shown = () => <OwnSoundPart lane={lane()} />;

beforeEach(() => {
  mockHeard.length = 0;
  giveEdits(edits);
  pageFits(false);
  store.dispatch(beatOpened({ beat: newBeat('b', 'Quay', 1) }));
  store.dispatch(looked({ patternId: 'a', openLane: null, drawer: null }));
});

const view = (node: React.ReactNode) => render(<Provider store={store}>{node}</Provider>);

describe('the sound of a lane', () => {
  const again = () => {
    const { rerender } = view(<Shown />);
    return async () => {
      rerender(
        <Provider store={store}>
          <Shown />
        </Provider>,
      );
      await settle();
    };
  };

  test('files become its layers, in ranges by velocity or one after the other; one undo takes them back', async () => {
    const draw = again();
    await choose('Audio files', ['a.wav', 'b.wav']);
    expect(lane().voice).toMatchObject({ choose: 'shuffle', layers: [{ low: 1, high: 127 }, {}] });
    await draw();
    pick('Which layer of Kick sounds', 'velocity');
    expect(lane().voice!.layers.map(({ low, high }) => [low, high])).toEqual([
      [1, 64],
      [65, 127],
    ]);
    act(() => void store.dispatch(undone()));
    act(() => void store.dispatch(undone()));
    expect(lane().voice).toBeUndefined();
  });

  test('a layer is turned round, its start and attack moved by keys, shaped; what is as it was is not written down', async () => {
    const draw = again();
    await choose('Audio files', ['a.wav']);
    await draw();
    await press('Backwards');
    await draw();
    const [layer] = lane().voice!.layers;
    expect(layer!.reverse).toBe(true);
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Start of a.wav' }), {
      key: 'ArrowRight',
      shiftKey: true,
    });
    expect(lane().voice!.layers[0]!.start).toBeCloseTo(0.01);
    await draw();
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Place of the attack of a.wav' }), {
      key: 'ArrowRight',
    });
    expect(lane().voice!.layers[0]!.lands).toBeCloseTo(0.299);
    await draw();
    await press('Backwards');
    expect(lane().voice!.layers[0]).not.toHaveProperty('reverse');
    await draw();
    pick('Filter of a.wav', 'low');
    expect(lane().voice!.layers[0]!.filter).toMatchObject({ pass: 'low', slope: 12 });
  });

  test('turned round, its attack is told of how it is heard, and stands on the wave from its end', async () => {
    const draw = again();
    await choose('Audio files', ['a.wav']);
    await draw();
    await press('Backwards');
    await draw();
    const mark = screen.getByRole('slider', { name: 'Place of the attack of a.wav' });
    expect(Number(mark.getAttribute('aria-valuenow'))).toBeCloseTo(1.7);
    fireEvent.keyDown(mark, { key: 'ArrowLeft', shiftKey: true });
    expect(lane().voice!.layers[0]!.lands).toBeCloseTo(0.31);
  });

  test('its envelope is drawn on the wave once it has one, and its corners are moved there', async () => {
    const draw = again();
    await choose('Audio files', ['a.wav']);
    await draw();
    expect(screen.queryByRole('slider', { name: 'Risen of a.wav' })).toBeNull();
    act(() => {
      const voice = lane().voice!;
      const [layer] = voice.layers;
      store.dispatch(
        beatEdited({
          edit: {
            edit: 'setVoice',
            args: { laneId: lane().id, voice: { ...voice, layers: [{ ...layer!, attack: 20, decay: 400 }] } },
          },
        }),
      );
    });
    await draw();
    const corner = (name: string) => screen.getByRole('slider', { name: `${name} of a.wav` });
    expect(Number(corner('Faded').getAttribute('aria-valuenow'))).toBeCloseTo(0.42);
    fireEvent.keyDown(corner('Risen'), { key: 'ArrowRight', shiftKey: true });
    await draw();
    fireEvent.keyDown(corner('Held until'), { key: 'ArrowRight', shiftKey: true });
    await draw();
    fireEvent.keyDown(corner('Faded'), { key: 'ArrowLeft' });
    // What comes after a corner keeps its length, and moves with it.
    expect(lane().voice!.layers[0]).toMatchObject({ attack: 30, hold: 10, decay: 399 });
  });

  test('files that are taken in while another beat is opened go into none of its lanes, and that is said', async () => {
    again();
    const taken = choose('Audio files', ['a.wav']);
    store.dispatch(beatOpened({ beat: newBeat('other', 'Tarps', 1) }));
    await taken;
    expect(lane().voice).toBeUndefined();
    expect(store.getState().notices.some(({ text }) => text.includes('no longer open'))).toBe(true);
  });

  test('a drum of a kit is stacked upon it; it is heard, given to the whole kit, put back', async () => {
    const draw = again();
    await press('Stack a drum');
    await press('Add it');
    expect(lane().voice).toMatchObject({
      choose: 'stacked',
      layers: [{ source: { kit: 'quay', drum: 'kick' } }, {}],
    });
    await draw();
    await press('Hear it');
    expect(mockHeard).toEqual(['Kick']);
    await press('Give it to the whole kit');
    expect(lane().voice).toBeUndefined();
    expect(beat().own!.voices.kick!.layers).toHaveLength(2);
    await draw();
    await press('Change this sound');
    expect(lane().voice!.layers).toHaveLength(2);
    await draw();
    await press('Back to the kit’s sound');
    expect(lane().voice).toBeUndefined();
  });

  test('drums that fit are offered; a sample that is missing is named', async () => {
    const draw = again();
    await press('Offer drums that fit');
    await press('Kick of Attic');
    expect(lane().voice!.layers[0]!.source).toEqual({ kit: 'attic', drum: 'kick' });
    await draw();
    await choose('Audio files', ['gone.wav']);
    await draw();
    await press('Layer 2: gone.wav');
    expect(screen.getByText(/“gone.wav” is missing in this browser/)).toBeTruthy();
  });
});

describe('a loop', () => {
  const open = async () => {
    view(<LoopSheet onClose={() => undefined} />);
    await press('Rain on the tarps');
  };

  test('is cut at its hits, less with less sensitivity, or evenly; marks are added, joined, moved', async () => {
    await open();
    const slices = () => screen.getAllByRole('slider', { name: /^Slice/ }).length;
    expect(slices()).toBe(4);
    pick('How it is cut', '16');
    expect(slices()).toBe(16);
    pick('How it is cut', 'hits');
    fireEvent.focus(screen.getByRole('slider', { name: 'Slice 2' }));
    await press('Cut it in two');
    expect(slices()).toBe(5);
    await press('Join it to the one before');
    expect(slices()).toBe(4);
    await press('Hear the slice');
    expect(mockHeard[0]).toMatch(/^A loop \d$/);
  });

  test('plays on a lane of its own, its slices as pitches; or as drums; its timing is a template, its tempo the beat’s', async () => {
    await open();
    await press('Take its timing');
    expect(beat().templates).toHaveLength(1);
    await press('Take its tempo');
    expect(beat().tempo).toBe(120);
    fireEvent.focus(screen.getByRole('slider', { name: 'Slice 3' }));
    await press('Backwards');
    await press('Play it on a lane');
    const last = beat().lanes.at(-1)!;
    expect(last.loop).toMatchObject({ marks: [0, 0.5, 1, 1.5], reversed: [2] });
    expect(beat().patterns[0]!.parts[last.id]!.hits.map(({ pitch = 0 }) => pitch)).toEqual([0, 1, 2, 3]);
    await press('Spread over the drums');
    expect(beat().patterns[0]!.parts['hat.closed']!.hits.map(({ step }) => step)).toEqual([4, 12]);
  });
});
