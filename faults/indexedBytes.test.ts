import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { bytesName, createIndexedBytes } from '../src/keeping/indexedBytes';

let count = 0;
const fresh = () => createIndexedBytes(`bytes ${(count += 1)}`);
const bytes = (...values: number[]) => Uint8Array.from(values);

afterEach(() => jest.restoreAllMocks());

test('data is had again by its name, as it was, and the same is kept once', async () => {
  const store = fresh();
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.uint8Array({ maxLength: 64 }), { minLength: 1, maxLength: 4 }),
      async (all) => {
        const names = await store.put(all);
        for (const [at, name] of names.entries()) expect(await store.get(name)).toEqual(all[at]);
        expect(new Set(names).size).toBe(new Set(all.map(String)).size);
        expect(await store.has([...names, 'none'])).toEqual([...names.map(() => true), false]);
      },
    ),
    { numRuns: 40 },
  );
  const [name] = await store.put([bytes(1, 2)]);
  await store.put([bytes(1, 2)]);
  expect((await store.names()).filter((one) => one === name)).toHaveLength(1);
});

test('the name is the SHA-256', async () => {
  expect(await bytesName(new TextEncoder().encode('abc'))).toBe(
    'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
  );
});

test('what is removed is gone, the rest stays', async () => {
  const store = fresh();
  const [one, two] = await store.put([bytes(1), bytes(2)]);
  await store.remove([one!, 'none']);
  expect(await store.get(one!)).toBeNull();
  expect(await store.names()).toEqual([two]);
});

test('of what is put together nothing is there where one of it is refused, and the fault is told', async () => {
  const store = fresh();
  await store.put([bytes(9)]);
  const real = IDBObjectStore.prototype.put;
  let calls = 0;
  jest.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(function (this: IDBObjectStore, ...all) {
    if ((calls += 1) === 2) throw new DOMException('full', 'QuotaExceededError');
    return real.apply(this, all);
  });
  await expect(store.put([bytes(1), bytes(2), bytes(3)])).rejects.toMatchObject({
    name: 'QuotaExceededError',
  });
  jest.restoreAllMocks();
  expect(await store.names()).toEqual([await bytesName(bytes(9))]);
});

test('a connection that was closed underneath is opened again', async () => {
  const store = fresh();
  const [name] = await store.put([bytes(5)]);
  const real = IDBDatabase.prototype.transaction;
  jest.spyOn(IDBDatabase.prototype, 'transaction').mockImplementationOnce(function (
    this: IDBDatabase,
    ...all
  ) {
    this.close();
    return real.apply(this, all);
  });
  expect(await store.get(name!)).toEqual(bytes(5));
});
