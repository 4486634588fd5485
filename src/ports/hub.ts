import type { PadHeard } from '../../core/ports/gridLayout';
import { createMidiStream, type MidiBytes } from '../../core/ports/midiStream';
import { createOutbox, type Out, type Outbox, type OutCount } from '../../core/ports/outbox';
import { namedIn } from '../../core/namedIn';
import type { Ms } from '../../core/units';
import type { Carrier, Device, Port } from './port';
import { firstSetting, type PortSetting, type PortSettings } from './settings';

/** A port as it is shown. */
export interface ShownPort {
  name: string;
  device: Device | null;
  /** False where it is remembered and not there. */
  there: boolean;
  hears: boolean;
  sends: boolean;
  setting: PortSetting;
  /** When something last went in or out, in ms of the page's clock. */
  heardAt: Ms;
  sentAt: Ms;
}

export interface HubParts {
  now: () => Ms;
  settings: PortSettings;
  /** A whole message was heard. */
  take: (name: string, setting: PortSetting, bytes: MidiBytes, time: Ms) => void;
  /** A port came that was not there, or went. */
  onPlug: (name: string, there: boolean) => void;
  /** So many bytes were passed over. */
  onLost: (name: string, bytes: number) => void;
  /** Settings changed: they are to be kept. */
  onSettings: (settings: PortSettings) => void;
}

/** A storm of more notes than this within a second is held off: what is more is passed over. */
const MOST_A_SECOND = 2000;

interface Plugged {
  port: Port;
  outbox: Outbox | null;
  send: Out['send'] | null;
  end: () => void;
}

/** All ports there are, whatever carries them: what goes where, lights, unplugged and plugged in again. */
export const createHub = ({ now, settings: kept, take, onPlug, onLost, onSettings }: HubParts) => {
  let settings = kept;
  const carriers: Carrier[] = [];
  const plugged = new Map<string, Plugged>();
  const lights = new Map<string, { heardAt: Ms; sentAt: Ms }>();
  const devices = new Map<string, Device | null>();
  const hearers = new Set<() => void>();
  let shown: ShownPort[] | null = null;
  /** Whose notes are learnt now, and not played. */
  let learner: { name: string; give: (heard: PadHeard) => void } | null = null;

  const tell = () => {
    shown = null;
    hearers.forEach((told) => told());
  };
  const lightOf = (name: string) => {
    const light = lights.get(name) ?? { heardAt: -Infinity, sentAt: -Infinity };
    lights.set(name, light);
    return light;
  };
  const settingOf = (name: string): PortSetting =>
    namedIn(settings, name) ?? firstSetting(devices.get(name) ?? null);

  const plugIn = (port: Port) => {
    const { name, output, input } = port;
    devices.set(name, port.device);
    const light = lightOf(name);
    let [second, many] = [0, 0];
    const stream = createMidiStream({
      give: (message, time) => {
        const s = Math.floor(time / 1000);
        [second, many] = s === second ? [second, many + 1] : [s, 1];
        // What is held off is told once a second; ends of notes are never held off, so that nothing hangs.
        const isOff = (message[0]! & 0xf0) === 0x80 || ((message[0]! & 0xf0) === 0x90 && message[2] === 0);
        if (many > MOST_A_SECOND && !isOff) {
          if (many === MOST_A_SECOND + 1) onLost(name, 0);
          return;
        }
        if (learner?.name === name) {
          if ((message[0]! & 0xf0) === 0x90 && message[2])
            learner.give({ channel: (message[0]! & 0x0f) + 1, note: message[1]! });
          return;
        }
        take(name, settingOf(name), message, time);
      },
      onLost: (bytes) => onLost(name, bytes),
    });
    const stop = input?.hear((bytes, time) => {
      light.heardAt = now();
      stream(bytes, time);
    });
    const send: Out['send'] | null = output
      ? (bytes, time) => {
          light.sentAt = now();
          output.send(bytes, time);
        }
      : null;
    const outbox = output && send ? createOutbox({ ...output, send }, now) : null;
    plugged.set(name, { port, outbox, send, end: () => stop?.() });
  };

  const look = () => {
    const there = carriers.flatMap((carrier) => carrier.ports());
    for (const [name, one] of plugged) {
      const same = there.find((port) => port.name === name);
      if (same && same.input === one.port.input && same.output === one.port.output) continue;
      one.end();
      plugged.delete(name);
      if (!same) onPlug(name, false);
    }
    for (const port of there)
      if (!plugged.has(port.name)) {
        plugIn(port);
        onPlug(port.name, true);
      }
    tell();
  };

  return {
    add: (carrier: Carrier): void => {
      carriers.push(carrier);
      carrier.onChange(look);
      look();
    },
    /** The ports that are there, and those that are remembered: the same list until something changes. */
    ports: (): ShownPort[] =>
      (shown ??= [...new Set([...plugged.keys(), ...Object.keys(settings)])].sort().map((name): ShownPort => {
        const one = plugged.get(name);
        return {
          name,
          device: devices.get(name) ?? null,
          there: !!one,
          hears: !!one?.port.input,
          sends: !!one?.outbox,
          setting: settingOf(name),
          ...lightOf(name),
        };
      })),
    lights: (name: string): { heardAt: Ms; sentAt: Ms } => lightOf(name),
    /** How a port has kept its word, since it was plugged in. */
    count: (name: string): OutCount => plugged.get(name)?.outbox?.count() ?? { late: 0, doubled: 0 },
    onChange: (told: () => void): (() => void) => {
      hearers.add(told);
      return () => void hearers.delete(told);
    },
    set: (name: string, change: Partial<PortSetting>): void => {
      const before = settingOf(name);
      const next = { ...before, ...change };
      settings = { ...settings, [name]: next };
      // What no longer plays out is let go of.
      if (before.notes && (!next.notes || next.channel !== before.channel || next.lanes !== before.lanes))
        plugged.get(name)?.outbox?.stop();
      onSettings(settings);
      tell();
    },
    /** The notes that a port plays are given to be learnt, and do nothing else meanwhile. @returns ends it */
    learn: (name: string, give: (heard: PadHeard) => void): (() => void) => {
      const own = { name, give };
      learner = own;
      return () => {
        if (learner === own) learner = null;
      };
    },
    /** Forgets what is not there. */
    forget: (name: string): void => {
      const { [name]: _, ...left } = settings;
      settings = left;
      onSettings(settings);
      tell();
    },
    /** How many odd words were passed over. */
    passedOver: (): number => carriers.reduce((sum, { passedOver }) => sum + (passedOver?.() ?? 0), 0),
    outs: (): { name: string; setting: PortSetting; outbox: Outbox; send: Out['send'] }[] =>
      [...plugged].flatMap(([name, { outbox, send }]) =>
        outbox && send ? [{ name, setting: settingOf(name), outbox, send }] : [],
      ),
    panic: (): void => plugged.forEach(({ outbox }) => outbox?.panic()),
  };
};

export type Hub = ReturnType<typeof createHub>;
