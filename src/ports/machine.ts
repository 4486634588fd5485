import type { Input, Output } from 'webmidi';
import type { Carrier, Port } from './port';

/** By their names; two of one kind are told apart by a number. */
const numbered = <Value extends { name: string }>(all: readonly Value[]): Map<string, Value> => {
  const out = new Map<string, Value>();
  for (const one of all) {
    let free = one.name;
    for (let n = 2; out.has(free); n++) free = `${one.name} ${n}`;
    out.set(free, one);
  }
  return out;
};

/** Whether ports of the machine can take back what has not left yet. */
const takesBack = (): boolean => {
  const { MIDIOutput: made } = globalThis as { MIDIOutput?: { prototype: object } };
  return !made || 'clear' in made.prototype;
};

/**
 * The ports of the machine, where the browser has them and the person allows it.
 *
 * @throws an error with a sentence for a person where there are none to be had
 */
export const openMachine = async (): Promise<Carrier> => {
  const { WebMidi } = await import('webmidi');
  await WebMidi.enable();
  // By themselves and not by their ids: what is plugged in again may be another one under the same id.
  const inputs = new WeakMap<Input, NonNullable<Port['input']>>();
  const outputs = new WeakMap<Output, NonNullable<Port['output']>>();
  const inputOf = (input: Input): NonNullable<Port['input']> => ({
    hear: (take) => {
      const [listener] = [
        input.addListener('midimessage', ({ message, timestamp }) =>
          take(message.rawData as unknown as number[], timestamp),
        ),
      ].flat();
      return () => listener?.remove();
    },
  });
  const outputOf = (output: Output): NonNullable<Port['output']> => ({
    send: (bytes, time) => void output.send([...bytes], { time }),
    // Few browsers let a port take back what it was given.
    ...(takesBack() && { clear: () => void output.clear() }),
  });
  const kept = <Key extends object, Value>(map: WeakMap<Key, Value>, of: Key, make: (of: Key) => Value) => {
    const there = map.get(of) ?? make(of);
    map.set(of, there);
    return there;
  };
  return {
    ports: () => {
      const [ins, outs] = [numbered(WebMidi.inputs), numbered(WebMidi.outputs)];
      return [...new Set([...ins.keys(), ...outs.keys()])].map((name): Port => {
        const [input, output] = [ins.get(name), outs.get(name)];
        return {
          name,
          device: null,
          input: input ? kept(inputs, input, inputOf) : null,
          output: output ? kept(outputs, output, outputOf) : null,
        };
      });
    },
    onChange: (told) => {
      WebMidi.addListener('connected', told);
      WebMidi.addListener('disconnected', told);
    },
  };
};
