/**
 * Decoders that lie in files of their own, so that anyone may put another one in their place: fetched by the worker that decodes,
 * when the first file of the kind comes.
 */

type Decode = (bytes: Uint8Array) => Promise<{ channelData: Float32Array[]; sampleRate: number }>;

interface Worker {
  importScripts: (address: string) => void;
  [name: `ruddikDecoder_${string}`]: { decode?: Decode } | undefined;
}

/**
 * A function that decodes by a file of that name.
 *
 * @throws where the file does not come, asked for twice, or holds no such function
 */
export const exchangeable =
  (name: 'mp3' | 'flac' | 'vorbis', worker: Worker = globalThis as unknown as Worker): Decode =>
  async (bytes) => {
    for (const again of ['', '?again=1']) {
      const there = worker[`ruddikDecoder_${name}`]?.decode;
      if (there) return there(bytes);
      try {
        worker.importScripts(`/decoders/${name}.js${again}`);
      } catch (fault) {
        if (again) throw fault;
      }
    }
    const decode = worker[`ruddikDecoder_${name}`]?.decode;
    if (!decode) throw new Error(`decoders/${name}.js holds no decoder.`);
    return decode(bytes);
  };
