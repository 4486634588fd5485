import { documents, midiFiles, others } from './files';

/** A short part of what is tried at length: time is left to the long run. */
test('files and documents that were kept or are mutated are read or refused, and what is accepted works', () => {
  expect(midiFiles(240, 11, Infinity).faults).toEqual([]);
  expect(documents(80, 12, Infinity).faults).toEqual([]);
  expect(others(300, 13, Infinity).faults).toEqual([]);
}, 120_000);
