/** The choices in a beat: apart from the schema, which is large and needed only for reading files. */
export const DIRECTIONS = ['forward', 'backward', 'thereAndBack', 'random', 'walk'] as const;
export const RATES = ['1/4', '1/3', '1/2', '2/3', '1', '3/2', '2', '3', '4'] as const;
/** Whose off-beats a lane may nudge: those of quarters are the second eighth of each, and so on. */
export const OFFBEAT_GRIDS = ['1/4', '1/8', '1/16'] as const;
export const SPACINGS = ['even', 'triplet', 'dotted'] as const;
export const PIGMENTS = ['walnut', 'weld', 'lichen', 'madder', 'heather'] as const;
/** The base feels. */
export const BASES = ['straight', 'swing', 'template'] as const;
/** The stages of feel, in their order. */
export const STAGES = ['quantize', 'base', 'stagger', 'ahead', 'dynamics', 'humanize'] as const;
export type Base = (typeof BASES)[number];
export type Stage = (typeof STAGES)[number];

/** The range of a swing, in percent; 50 is straight, below it the off-steps come early. */
export const SWING = { least: 40, most: 75 } as const;

/** The groups of drums that a template may have a curve of its own for. */
export const DRUM_GROUPS = ['kick', 'snare', 'hat', 'cymbal', 'tom', 'hand', 'shaken'] as const;
export type DrumGroup = (typeof DRUM_GROUPS)[number];

/** The span at the end of a section that a fill takes the place of. */
export const OVERS = ['bar', 'beat'] as const;

/** How much a song may hold. */
export const SONG = { tray: 256, sections: 128, places: 512, entries: 64, times: 64, bars: 64 } as const;

/** How many of each a beat may hold, and how long a name may be. */
export const MOST = {
  lanes: 64,
  patterns: 256,
  groups: 32,
  name: 80,
  slots: 1024,
  seeds: 200,
  feels: 64,
  templates: 256,
  players: 16,
} as const;

/** Makers propose hits; their outcomes are takes. */
export const MAKERS = ['randomize', 'vary', 'ring', 'bands', 'chords', 'beat', 'detour', 'rudiment'] as const;
export type Maker = (typeof MAKERS)[number];

/** How many steps a lane's own loop has. */
export const STEPS = { least: 1, most: 64 } as const;

/** How many slots a detour divides its span into, and what that is. */
export const DETOUR_SLOTS = [4, 8, 16, 32] as const;
export const DETOUR_OVER = ['bar', 'all'] as const;

/** Which strokes of a lane set off sparks. */
export const SPARK_OF = ['all', 'first', 'last'] as const;

/** How many sparks a lane may have, delays a stagger, routes a beat. */
export const MOVES = { sparks: 8, delays: 16, routes: 64 } as const;

/** Keys of the computer that can begin a pattern, by their place on the keyboard as browsers name it. */
export const KEY_CODE = /^(Key[A-Z]|Digit\d|Numpad\w{1,12}|F\d{1,2})$/;

/** When a pattern begins while another one plays. */
export const BEGINS = ['now', 'beat', 'end'] as const;

/** Which layer of a voice sounds: by how hard it is struck, all, one after the other, by chance, each once before any again. */
export const CHOOSINGS = ['velocity', 'stacked', 'turn', 'random', 'shuffle'] as const;
export type Choosing = (typeof CHOOSINGS)[number];

/** The kinds of filters of a layer. */
export const PASSES = ['low', 'high', 'band'] as const;

/** How many layers a voice may have, and marks a loop. */
export const SOUND = { layers: 12, marks: 64, seconds: 600 } as const;

/** Which hand plays a stroke, and by what rule hands are found: the least effort, one after the other, the leading hand wherever it can, as
 * the rudiments have it. */
export const HANDS = ['R', 'L'] as const;
export const HAND_RULES = ['easiest', 'alternate', 'lead', 'rudiment'] as const;
export type Hand = (typeof HANDS)[number];
export type HandRule = (typeof HAND_RULES)[number];
