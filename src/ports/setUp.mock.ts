import type { MidiBytes } from '../../core/ports/midiStream';
import { createCable, plugIn, type Cable, type CableWord } from './cable';
import { createHub, type HubParts } from './hub';

/** A channel of the browser: what one end says, all others hear. */
const channel = () => {
  const ends = new Set<Cable>();
  const open = (): Cable => {
    const end: Cable = {
      onmessage: null,
      postMessage: (word: CableWord) => {
        for (const other of [...ends])
          if (other !== end) other.onmessage?.({ data: JSON.parse(JSON.stringify(word)) });
      },
      close: () => void ends.delete(end),
    };
    ends.add(end);
    return end;
  };
  return open;
};

/** Ports of a page of the app and of stand-ins, with a clock that is set by hand. */
export const setUp = (settings: HubParts['settings'] = {}) => {
  const open = channel();
  let now = 1000;
  const taken: { name: string; bytes: MidiBytes; time: number }[] = [];
  const plugs: string[] = [];
  const lost: number[] = [];
  const kept: string[] = [];
  const hub = createHub({
    now: () => now,
    settings,
    take: (name, _, bytes, time) => void taken.push({ name, bytes, time }),
    onPlug: (name, there) => void plugs.push(`${there ? '+' : '-'}${name}`),
    onLost: (_, bytes) => void lost.push(bytes),
    onSettings: (all) => void kept.push(JSON.stringify(all)),
  });
  // The app's page began a second later than the stand-in's: its clock stands so much lower.
  hub.add(createCable(open(), { now: () => now, origin: 1000 }));
  const device = (
    id: string,
    name: string,
    heard: { bytes: MidiBytes; time: number }[] = [],
    cleared: string[] = [],
  ) =>
    plugIn(
      open(),
      { now: () => now + 1000, origin: 0 },
      {
        id,
        name,
        device: 'module',
        take: (bytes, time) => void heard.push({ bytes, time }),
        clear: () => void cleared.push(id),
      },
    );
  const raw = open();
  /** Something on the channel says anything. */
  const shout = (word: unknown) => raw.postMessage(word as CableWord);
  return { hub, device, shout, taken, plugs, lost, kept, at: (time: number) => (now = time), now: () => now };
};
