import type { MidiBytes } from '../../core/ports/midiStream';
import type { Out } from '../../core/ports/outbox';
import type { Ms } from '../../core/units';

/** What a stand-in stands for. */
export type Device = 'grid' | 'host' | 'module';

/** A way to an outside device or back from it: of the machine, or over the cable to a stand-in. */
export interface Port {
  /** By which it is known again, though it was unplugged. */
  name: string;
  /** What it stands for; null where it is a port of the machine. */
  device: Device | null;
  input: { hear: (take: (bytes: MidiBytes, time: Ms) => void) => () => void } | null;
  output: Out | null;
}

/** Where ports come from. */
export interface Carrier {
  ports: () => Port[];
  /** How many odd words were passed over since it was opened. */
  passedOver?: () => number;
  /** Told when a port comes or goes. */
  onChange: (told: () => void) => void;
}
