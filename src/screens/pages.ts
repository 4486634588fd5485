/** The pages of the screens that have some; the first is the one that its screen's plain address opens. */
export const FEEL_PAGES = ['stages', 'compare', 'charts', 'report', 'templates', 'feels'] as const;
export const SONG_PAGES = ['sections', 'tray', 'live'] as const;
export const GROOVE_PAGES = ['list', 'groove', 'maps'] as const;
export const DRAWER_PAGES = ['hits', 'lane', 'sound', 'make', 'moves', 'pads'] as const;
export const SHEETS = ['kits', 'loop'] as const;
