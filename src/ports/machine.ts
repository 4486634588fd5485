import type { Input, Output } from 'webmidi';
import type { Carrier, Port } from './port';

/**
 * The ports of the machine, where the browser has them and the person allows it.
 *
 * @throws an error with a sentence for a person where there are none to be had
 */
export const openMachine = async (): Promise<Carrier> => {
  const { WebMidi } = await import('webmidi');
  await WebMidi.enable();
  const inputs = new Map<string, Port['input']>();
  const outputs = new Map<string, Port['output']>();
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
    clear: () => void output.clear(),
  });
  const kept = <Value>(map: Map<string, Value>, id: string, make: () => Value): Value => {
    const there = map.get(id) ?? make();
    map.set(id, there);
    return there;
  };
  return {
    ports: () => {
      const names = new Set([...WebMidi.inputs, ...WebMidi.outputs].map(({ name }) => name));
      return [...names].map((name): Port => {
        const input = WebMidi.inputs.find((one) => one.name === name);
        const output = WebMidi.outputs.find((one) => one.name === name);
        return {
          name,
          device: null,
          input: input ? kept(inputs, input.id, () => inputOf(input)) : null,
          output: output ? kept(outputs, output.id, () => outputOf(output)) : null,
        };
      });
    },
    onChange: (told) => {
      WebMidi.addListener('connected', told);
      WebMidi.addListener('disconnected', told);
    },
  };
};
