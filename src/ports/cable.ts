import type { MidiBytes } from '../../core/ports/midiStream';
import type { Ms } from '../../core/units';
import { isCableWord, type CableWord } from './cableWord';
import type { Carrier, Device, Port } from './port';

export type { CableWord };

/**
 * The cable between the app and its stand-ins, in other tabs and windows: MIDI bytes with their times, on a channel of the
 * browser. Times go over it by the clock of the machine, since each page counts from a start of its own.
 */

/** The part of a channel that is used. */
export interface Cable {
  postMessage: (word: CableWord) => void;
  /** What it is may be anything: it is looked at first. */
  onmessage: ((event: { data: unknown }) => void) | null;
  close: () => void;
}

export const CABLE = 'ruddik-cable';

/** More stand-ins are not opened by hand. */
const MOST_PORTS = 64;

interface Clock {
  /** This page's clock, in ms. */
  now: () => Ms;
  /** How far the clock of the machine stands ahead of it. */
  origin: number;
}

/** The app's end: each stand-in that is there is a port. */
export const createCable = (cable: Cable, { origin }: Clock): Carrier => {
  const ports = new Map<string, Port>();
  const takers = new Map<string, Set<(bytes: MidiBytes, time: Ms) => void>>();
  const hearers = new Set<() => void>();
  const tell = () => hearers.forEach((told) => told());

  const portOf = (id: string, name: string, device: Device): Port => ({
    name,
    device,
    input: {
      hear: (take) => {
        const all = takers.get(id) ?? new Set();
        takers.set(id, all.add(take));
        return () => void all.delete(take);
      },
    },
    output: {
      send: (bytes, time) =>
        cable.postMessage({ type: 'midi', id, to: 'device', bytes: [...bytes], time: time + origin }),
      clear: () => cable.postMessage({ type: 'clear', id }),
    },
  });
  /** Two of one kind are told apart by a number. */
  const freeName = (name: string): string => {
    const taken = new Set([...ports.values()].map((port) => port.name));
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
    return free;
  };

  let passed = 0;
  cable.onmessage = ({ data }) => {
    if (!isCableWord(data) || (data.type === 'here' && ports.size >= MOST_PORTS)) passed += 1;
    else if (data.type === 'here' && !ports.has(data.id)) {
      ports.set(data.id, portOf(data.id, freeName(data.name), data.device));
      tell();
    } else if (data.type === 'gone' && ports.delete(data.id)) tell();
    else if (data.type === 'midi' && data.to === 'app')
      takers.get(data.id)?.forEach((take) => take(data.bytes, data.time - origin));
  };
  cable.postMessage({ type: 'who' });
  return {
    ports: () => [...ports.values()],
    passedOver: () => passed,
    onChange: (told) => void hearers.add(told),
  };
};

export interface StandIn {
  send: (bytes: MidiBytes, time?: Ms) => void;
  /** It is unplugged. */
  close: () => void;
}

interface StandInParts {
  id: string;
  name: string;
  device: Device;
  /** A message came, for a time of this page's clock. */
  take: (bytes: MidiBytes, time: Ms) => void;
  /** All that was for later is taken back. */
  clear?: () => void;
}

/** A stand-in's end. */
export const plugIn = (
  cable: Cable,
  { now, origin }: Clock,
  { id, name, device, take, clear }: StandInParts,
): StandIn => {
  const here = () => cable.postMessage({ type: 'here', id, name, device });
  cable.onmessage = ({ data }) => {
    if (!isCableWord(data)) return;
    if (data.type === 'who') here();
    else if (data.type === 'midi' && data.to === 'device' && data.id === id)
      take(data.bytes, data.time - origin);
    else if (data.type === 'clear' && data.id === id) clear?.();
  };
  here();
  return {
    send: (bytes, time = now()) =>
      cable.postMessage({ type: 'midi', id, to: 'app', bytes: [...bytes], time: time + origin }),
    close: () => {
      cable.postMessage({ type: 'gone', id });
      cable.close();
    },
  };
};

/** This page's clock, as the cable needs it. */
export const pageClock = (): Clock => ({ now: () => performance.now(), origin: performance.timeOrigin });

export const openCable = (): Cable => new BroadcastChannel(CABLE) as unknown as Cable;
