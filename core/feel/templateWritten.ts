import type { DrumGroup } from '../document/choices';
import type { Grid } from '../document/grid';
import type { Meter } from '../document/meter';

/**
 * The templates that ship. Each is a line of offsets in percent of a step (late is positive) and one of velocities in
 * percent; what is shorter than a bar goes on from its beginning, so that only what changes need be written.
 */
export interface TemplateWritten {
  id: string;
  name: string;
  about: string;
  /** The meter whose pulses it stresses; left out, 4/4. */
  meter?: Meter;
  grid: Grid;
  slots: number;
  late: string;
  force: string;
  /** Of groups of drums that go another way: late and force. */
  groups?: Partial<Record<DrumGroup, readonly [late: string, force: string]>>;
}
