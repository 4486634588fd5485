import { exchangeable } from './exchangeable';

const decoded = { channelData: [new Float32Array(2)], sampleRate: 48_000 };

/** A worker whose files answer in turn. */
const worker = (answers: ('refused' | 'empty' | 'decoder')[]) => {
  const asked: string[] = [];
  const scope: Parameters<typeof exchangeable>[1] = {
    importScripts: (address) => {
      asked.push(address);
      const answer = answers.shift();
      if (answer === 'refused') throw new Error('refused');
      if (answer === 'decoder') scope!['ruddikDecoder_mp3'] = { decode: () => Promise.resolve(decoded) };
    },
  };
  return { scope, asked };
};

test('it is fetched once, when the first file comes', async () => {
  const { scope, asked } = worker(['decoder']);
  const decode = exchangeable('mp3', scope);
  expect(asked).toEqual([]);
  expect(await decode(new Uint8Array())).toBe(decoded);
  expect(await decode(new Uint8Array())).toBe(decoded);
  expect(asked).toEqual(['/decoders/mp3.js']);
});

test.each(['refused', 'empty'] as const)('%s once, it is fetched again', async (how) => {
  const { scope, asked } = worker([how, 'decoder']);
  expect(await exchangeable('mp3', scope)(new Uint8Array())).toBe(decoded);
  expect(asked).toEqual(['/decoders/mp3.js', '/decoders/mp3.js?again=1']);
});

test.each(['refused', 'empty'] as const)('%s twice, that is told', async (how) => {
  const { scope } = worker([how, how]);
  await expect(exchangeable('mp3', scope)(new Uint8Array())).rejects.toThrow();
});
