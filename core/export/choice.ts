import type { DrumMap } from '../document/drumMapSchema';
import type { LoopEdges } from '../play/edges';
import type { Channel } from '../units';

/** The extent of an export. */
export const SCOPES = ['pattern', 'section', 'song', 'sections', 'range', 'patterns', 'tray'] as const;
export type ExportScope = (typeof SCOPES)[number];

export const SCOPE_NAMES: Record<ExportScope, string> = {
  pattern: 'One pattern',
  section: 'One section',
  song: 'The whole song',
  sections: 'The song, by section',
  range: 'Some bars of the song',
  patterns: 'All patterns',
  tray: 'The tray',
};

/** As what it is written. */
export const EXPORT_KINDS = ['midi', 'audio', 'paper', 'tab', 'list'] as const;
export type ExportKind = (typeof EXPORT_KINDS)[number];

export const KIND_NAMES: Record<ExportKind, string> = {
  midi: 'MIDI',
  audio: 'Audio (WAV)',
  paper: 'Drum part (MusicXML)',
  tab: 'Drum tab (text)',
  list: 'List of hits (CSV)',
};

export const SPLITS = ['none', 'lanes', 'groups'] as const;
export type Split = (typeof SPLITS)[number];

/** `lanes`: what a lane has of its own holds, the channel is for the others; `whole`: all on it; `each`: one a lane, from it on. */
export const CHANNELS = ['lanes', 'whole', 'each'] as const;
export type Channels = (typeof CHANNELS)[number];

export const DEPTHS = ['16', '24', '32f'] as const;
export type Depth = (typeof DEPTHS)[number];
export const BOUNCE_RATES = [44100, 48000] as const;

/** Everything that may be chosen, but for what it is chosen of: kept by name, it serves any beat. */
export interface ExportHow {
  kind: ExportKind;
  scope: ExportScope;
  /** How often a pattern plays. */
  passes: number;
  split: Split;
  /** Parts become tracks of one file, or files. */
  as: 'tracks' | 'files';
  format: 0 | 1;
  /** Ticks a quarter. */
  ppq: number;
  channel: Channel;
  channels: Channels;
  /** Null is the beat's own. */
  map: DrumMap | null;
  /** Without the feel: hits where they were programmed. */
  straight: boolean;
  edges: LoopEdges;
  includeMuted: boolean;
  countIn: boolean;
  /** Notes come as much earlier as the attack of their sound is late: for samplers that do not see to it themselves. */
  lead: boolean;
  /** A drum part tells which hand plays what. */
  hands: boolean;
  /** The pattern of file names, with `{beat}`, `{section}`, `{lane}`, `{bpm}`, `{meter}`, `{bars}` and `{n}` filled in. */
  names: string;
  depth: Depth;
  rate: (typeof BOUNCE_RATES)[number];
  stems: boolean;
  /** The ringing after the end: kept, or heard at the start instead, so that the file loops. A song is only cut. */
  tail: boolean;
}

/** The extent. */
export interface ExportWhat {
  patternId: string | null;
  placeId: string | null;
  /** Bars of the song, counted from 1, both included. */
  bars: { from: number; to: number };
}

export const HOW_DEFAULTS: ExportHow = {
  kind: 'midi',
  scope: 'pattern',
  passes: 1,
  split: 'none',
  as: 'tracks',
  format: 1,
  ppq: 960,
  channel: 10,
  channels: 'lanes',
  map: null,
  straight: false,
  edges: 'wrap',
  includeMuted: false,
  countIn: false,
  lead: false,
  hands: false,
  names: '{beat}-{section}',
  depth: '24',
  rate: 48000,
  stems: false,
  tail: true,
};

export const WHAT_DEFAULTS: ExportWhat = { patternId: null, placeId: null, bars: { from: 1, to: 8 } };

const one = <T>(list: readonly T[], value: unknown, other: T): T =>
  list.includes(value as T) ? (value as T) : other;
const yes = (value: unknown, other: boolean): boolean => (typeof value === 'boolean' ? value : other);
const within = (value: unknown, least: number, most: number, other: number): number =>
  typeof value === 'number' && value >= least && value <= most ? Math.round(value) : other;

/**
 * A choice as it was kept; what is not known in it any more is as at first.
 *
 * @example heldHow({ ppq: 'much' }).ppq // 960
 */
export const heldHow = (raw: Partial<Record<keyof ExportHow, unknown>>): ExportHow => {
  const d = HOW_DEFAULTS;
  return {
    kind: one(EXPORT_KINDS, raw.kind, d.kind),
    scope: one(SCOPES, raw.scope, d.scope),
    passes: within(raw.passes, 1, 64, d.passes),
    split: one(SPLITS, raw.split, d.split),
    as: one(['tracks', 'files'] as const, raw.as, d.as),
    format: one([0, 1] as const, raw.format, d.format),
    ppq: within(raw.ppq, 96, 1920, d.ppq),
    channel: within(raw.channel, 1, 16, d.channel),
    channels: one(CHANNELS, raw.channels, d.channels),
    map: raw.map && typeof raw.map === 'object' && 'notes' in raw.map ? (raw.map as DrumMap) : null,
    straight: yes(raw.straight, d.straight),
    edges: one(['wrap', 'hold'] as const, raw.edges, d.edges),
    includeMuted: yes(raw.includeMuted, d.includeMuted),
    countIn: yes(raw.countIn, d.countIn),
    lead: yes(raw.lead, d.lead),
    hands: yes(raw.hands, d.hands),
    names: typeof raw.names === 'string' ? raw.names.slice(0, 200) : d.names,
    depth: one(DEPTHS, raw.depth, d.depth),
    rate: one(BOUNCE_RATES, raw.rate, d.rate),
    stems: yes(raw.stems, d.stems),
    tail: yes(raw.tail, d.tail),
  };
};
