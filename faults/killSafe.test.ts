import 'fake-indexeddb/auto';
import { createKillSafe, notKillSafe } from '../src/keeping/killSafe';

let count = 0;
const named = () => `records ${(count += 1)}`;
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const text = async (name: string) => Object.fromEntries(await createKillSafe(name).all());

afterEach(() => jest.restoreAllMocks());

test('what is put there is there for the next page, whether the database was open yet or not', async () => {
  const name = named();
  const one = createKillSafe(name);
  one.put([['early', '1']]);
  expect(Object.fromEntries(await one.all())).toEqual({ early: '1' });
  one.put([
    ['a', '2'],
    ['b', '3'],
  ]);
  expect(await text(name)).toEqual({ early: '1', a: '2', b: '3' });
});

test('it is handed over in the same breath: nothing that the page does afterwards is needed', async () => {
  const name = named();
  const one = createKillSafe(name);
  await one.all();
  const done: string[] = [];
  for (const what of ['put', 'commit'] as const) {
    const owner = (what === 'put' ? IDBObjectStore : IDBTransaction).prototype as unknown as Record<
      string,
      (...given: unknown[]) => unknown
    >;
    const real = owner[what]!;
    jest.spyOn(owner, what).mockImplementation(function (this: unknown, ...given: unknown[]) {
      done.push(what);
      return real.apply(this, given);
    });
  }
  one.put([['a', '1']]);
  expect(done).toEqual(['put', 'commit']);
});

test('what has become needless goes, a little later and together', async () => {
  const name = named();
  const one = createKillSafe(name);
  one.put([
    ['a', '1'],
    ['b', '2'],
    ['c', '3'],
  ]);
  one.remove('a');
  one.remove('c');
  expect(await text(name)).toEqual({ a: '1', b: '2', c: '3' });
  await rest(400);
  expect(await text(name)).toEqual({ b: '2' });
});

test('a database that is closed underneath is opened again, and what was put meanwhile is there', async () => {
  const name = named();
  const one = createKillSafe(name);
  await one.all();
  const real = IDBDatabase.prototype.transaction;
  jest.spyOn(IDBDatabase.prototype, 'transaction').mockImplementationOnce(function (
    this: IDBDatabase,
    ...given
  ) {
    this.close();
    return real.apply(this, given);
  });
  one.put([['a', '1']]);
  one.put([['b', '2']]);
  await rest(50);
  expect(await text(name)).toEqual({ a: '1', b: '2' });
});

test('a browser that bars its database, or has none, changes nothing else', async () => {
  jest.spyOn(indexedDB, 'open').mockImplementation(() => {
    throw new DOMException('The operation is insecure.', 'SecurityError');
  });
  const barred = createKillSafe(named());
  barred.put([['a', '1']]);
  barred.remove('a');
  expect(await barred.all()).toEqual(new Map());
  notKillSafe.put([['a', '1']]);
  notKillSafe.remove('a');
  expect(await notKillSafe.all()).toEqual(new Map());
});
