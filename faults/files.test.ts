import { documents, midiFiles, others } from './files';
import { meant } from './meaning';

/** A short part of what is tried at length: time is left to the long run. */
test('files and documents that were kept or are mutated are read or refused, and what is accepted works', async () => {
  expect(midiFiles(240, 11, Infinity).faults).toEqual([]);
  expect(documents(80, 12, Infinity).faults).toEqual([]);
  expect(others(300, 13, Infinity).faults).toEqual([]);
  expect((await meant(60, 14, Infinity)).faults).toEqual([]);
}, 120_000);
