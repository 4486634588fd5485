/** @jest-environment jsdom */
import { readBeats } from '../../../core/document/file';
import { act, fireEvent, render, screen, waitFor } from '@testing-library/react';
import type { ReactNode } from 'react';
import { Provider } from 'react-redux';
import { newBeat } from '../../../core/document/defaults';
import { beatOpened } from '../../store/doc';
import { store } from '../../keeping/session';
import { libraryRead } from '../../store/slices';
import { summaryOf } from '../../keeping/storage';
import { BeatsScreen } from './BeatsScreen';

const mockPersistence = {
  open: jest.fn((_: string) => Promise.resolve(true)),
  create: jest.fn(() => Promise.resolve()),
  rename: jest.fn(),
  duplicate: jest.fn(),
  remove: jest.fn(),
  bringIn: jest.fn((_: string, __: unknown) => Promise.resolve()),
  refuse: jest.fn(),
  all: jest.fn(() => Promise.resolve([mockQuay, mockFerry])),
  beat: jest.fn((_: string) => Promise.resolve(mockFerry)),
  openId: () => 'quay',
  asideText: jest.fn((_: string) => Promise.resolve('{"damaged":')),
  removeAside: jest.fn(),
};
const mockRouter = { push: jest.fn() };
const mockSaved: [string, string][] = [];
const mockQuay = newBeat('quay', 'Quay', 1);
const mockFerry = newBeat('ferry', 'Ferry at Six', 2);

jest.mock('expo-router', () => ({ useRouter: () => mockRouter }));
jest.mock('../../ui/Icon', () => ({ Icon: () => null }));
jest.mock('../../ui/Sheet', () => ({
  Sheet: ({ title, children }: { title: string; children: ReactNode }) => (
    <section aria-label={title}>{children}</section>
  ),
}));
jest.mock('../../ui/files', () => ({
  saveText: (text: string, name: string) => mockSaved.push([name, text]),
}));
jest.mock('../saveBeats', () => ({
  ...jest.requireActual<typeof import('../saveBeats')>('../saveBeats'),
  saveBeat: ({ name }: { name: string }) => Promise.resolve(mockSaved.push([name, 'whole'])),
}));
jest.mock('../../workers/aside');
jest.mock('../../keeping/session', () => {
  const { createStore } = jest.requireActual<typeof import('../../store/store')>('../../store/store');
  const made = createStore();
  return {
    store: made,
    get persistence() {
      return mockPersistence;
    },
  };
});

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const fileOf = (name: string, text: string, size = text.length): File => {
  const file = new File([text], name);
  Object.defineProperty(file, 'size', { value: size });
  file.text = () => Promise.resolve(text);
  return file;
};

beforeEach(() => {
  jest.clearAllMocks();
  mockSaved.length = 0;
  store.dispatch(beatOpened({ beat: mockQuay }));
  store.dispatch(
    libraryRead({
      beats: [summaryOf(mockQuay, 1000), summaryOf(mockFerry, 2000)],
      aside: [{ key: 'aside/x/1', name: 'Damaged beat', reason: 'It ends in the middle.' }],
    } as Parameters<typeof libraryRead>[0]),
  );
  render(
    <Provider store={store}>
      <BeatsScreen />
    </Provider>,
  );
});

test('the beats of this browser, the last saved first, the open one marked', () => {
  expect(screen.getByText('2 in this browser')).toBeTruthy();
  const names = screen.getAllByRole('button', { name: /^Open (Quay|Ferry)/ });
  expect(names.map((one) => one.getAttribute('aria-label'))).toEqual(['Open Ferry at Six', 'Open Quay']);
  expect(names.map((name) => name.getAttribute('aria-current'))).toEqual(['false', 'true']);
  expect(screen.getByText('open')).toBeTruthy();
});

test('one is opened and the pattern shown; the open one needs no opening', async () => {
  press('Open Ferry at Six');
  await waitFor(() => expect(mockRouter.push).toHaveBeenCalledWith('/'));
  expect(mockPersistence.open).toHaveBeenCalledWith('ferry');
  press('Open Quay');
  expect(mockPersistence.open).toHaveBeenCalledTimes(1);
});

test('new, duplicate, delete and save do it to the beat that they name', async () => {
  press('New beat');
  expect(mockPersistence.create).toHaveBeenCalled();
  press('Duplicate Ferry at Six');
  expect(mockPersistence.duplicate).toHaveBeenCalledWith('ferry');
  press('Delete Quay');
  expect(mockPersistence.remove).toHaveBeenCalledWith('quay');
  press('Save Ferry at Six to a file');
  await waitFor(() => expect(mockSaved).toEqual([['Ferry at Six', 'whole']]));
});

test('a beat is renamed, and not to nothing', () => {
  press('Rename Ferry at Six');
  const field = screen.getByLabelText('Name');
  fireEvent.change(field, { target: { value: '  ' } });
  expect(screen.getByText('A beat needs a name of at least one letter.')).toBeTruthy();
  press('Rename');
  expect(mockPersistence.rename).not.toHaveBeenCalled();
  fireEvent.change(field, { target: { value: ' Slow ferry ' } });
  press('Rename');
  expect(mockPersistence.rename).toHaveBeenCalledWith('ferry', 'Slow ferry');
});

test('all beats go into one file', async () => {
  press('Save all beats');
  await waitFor(() => expect(mockSaved).toHaveLength(1));
  const [name, text] = mockSaved[0]!;
  expect(name).toMatch(/^all-beats-\d{4}-\d\d-\d\d\.ruddik\.json$/);
  expect(JSON.parse(text)).toMatchObject({
    kind: 'ruddik.beats',
    beats: [{ name: 'Quay' }, { name: 'Ferry at Six' }],
  });
});

const readAs = (text: string) => ({ ok: true, value: readBeats(text) });

test('files are brought in one by one; one that is too large is refused, and keeps no other out', async () => {
  const files = [fileOf('huge.json', '{}', 65 * 1024 * 1024), fileOf('small.json', '{"a":1}')];
  await act(async () => {
    fireEvent.change(screen.getByLabelText('Beat file'), { target: { files } });
    await Promise.resolve();
  });
  await waitFor(() => expect(mockPersistence.bringIn).toHaveBeenCalledWith('small.json', readAs('{"a":1}')));
  expect(mockPersistence.refuse).toHaveBeenCalledWith('huge.json', 'It is larger than 64 MB.');
});

test('dropped files are brought in too', async () => {
  fireEvent.drop(screen.getByRole('button', { name: 'New beat' }), {
    dataTransfer: { files: [fileOf('dropped.json', '{}')] },
  });
  await waitFor(() => expect(mockPersistence.bringIn).toHaveBeenCalledWith('dropped.json', readAs('{}')));
});

test('what was damaged can be downloaded with its text, and removed', async () => {
  expect(screen.getByText('It ends in the middle.')).toBeTruthy();
  press('Download Damaged beat');
  await waitFor(() => expect(mockSaved).toEqual([['Damaged beat.json.txt', '{"damaged":']]));
  press('Delete Damaged beat');
  expect(mockPersistence.removeAside).toHaveBeenCalledWith('aside/x/1');
});

test('the theme is chosen', () => {
  fireEvent.click(screen.getByRole('radio', { name: 'Day' }));
  expect(store.getState().look.theme).toBe('day');
  fireEvent.click(screen.getByRole('radio', { name: 'As the system' }));
  expect(store.getState().look.theme).toBe('system');
});
