import { plainLayout, readLayout, type GridLayout } from '../../core/ports/gridLayout';
import type { Device } from './port';

/** What goes where, by the names of ports: it is remembered though a port is not there. */
export interface PortSetting {
  /** What is heard from it is for: notes of lanes, patterns by their order from a note on, the clock, or a grid of pads. */
  input: 'off' | 'notes' | 'patterns' | 'clock' | 'grid';
  /** The note of the first pattern. */
  firstPattern: number;
  /** Lanes are played out by it. */
  notes: boolean;
  clock: boolean;
  /** 0 is each lane's own. */
  channel: number;
  /** The lanes that are; null is all. */
  lanes: string[] | null;
  /** How its pads are spoken to; null is a plain grid. */
  layout: GridLayout | null;
}

export type PortSettings = Record<string, PortSetting>;

export const NO_SETTING: PortSetting = {
  input: 'off',
  firstPattern: 36,
  notes: false,
  clock: false,
  channel: 0,
  lanes: null,
  layout: null,
};

/** What a port is for as long as nobody said anything: a stand-in does at once what it stands for. */
export const firstSetting = (device: Device | null): PortSetting => {
  if (device === 'grid') return { ...NO_SETTING, input: 'grid' };
  if (device === 'host') return { ...NO_SETTING, input: 'clock' };
  if (device === 'module') return { ...NO_SETTING, input: 'notes', notes: true };
  return { ...NO_SETTING, input: 'notes' };
};

const INPUTS = ['off', 'notes', 'patterns', 'clock', 'grid'] as const;
const whole = (value: unknown, least: number, most: number, fallback: number): number =>
  Number.isInteger(value) && (value as number) >= least && (value as number) <= most
    ? (value as number)
    : fallback;

const settingFrom = (raw: Record<string, unknown>): PortSetting => {
  const layout = raw['layout'] ? readLayout(JSON.stringify(raw['layout'])) : null;
  const { lanes, input } = raw;
  return {
    input: INPUTS.find((one) => one === input) ?? 'off',
    firstPattern: whole(raw['firstPattern'], 0, 127, 36),
    notes: raw['notes'] === true,
    clock: raw['clock'] === true,
    channel: whole(raw['channel'], 0, 16, 0),
    lanes: Array.isArray(lanes) ? lanes.filter((one): one is string => typeof one === 'string') : null,
    layout: layout?.ok ? layout.value : null,
  };
};

/** How the pads of a port are spoken to: a name that says 16 is taken at its word. */
export const layoutOf = (name: string, { layout }: PortSetting): GridLayout => {
  const size = /16/.test(name) ? 16 : 8;
  return layout ?? plainLayout(size, size);
};

/** What was kept, as far as it fits. */
export const readPortSettings = (text: string | null): PortSettings => {
  try {
    const raw = JSON.parse(text ?? '{}') as unknown;
    if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return {};
    return Object.fromEntries(
      Object.entries(raw).flatMap(([name, one]) =>
        typeof one === 'object' && one !== null ? [[name, settingFrom(one as Record<string, unknown>)]] : [],
      ),
    );
  } catch {
    return {};
  }
};
