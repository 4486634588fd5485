/** Grooves and folders that were marked to be found again. */
export interface Favourites {
  /** By id; the name is for people, and for a list that is taken to where the groove is not. */
  grooves: { id: string; name: string }[];
  folders: string[][];
}

export const NO_FAVOURITES: Favourites = { grooves: [], folders: [] };

const samePath = (a: string[], b: string[]): boolean =>
  a.length === b.length && a.every((one, at) => one === b[at]);

/**
 * Whether a groove is kept.
 *
 * @example keepsGroove({ grooves: [{ id: 'g', name: 'Rain' }], folders: [] }, 'g') // true
 */
export const keepsGroove = ({ grooves }: Favourites, id: string): boolean =>
  grooves.some((one) => one.id === id);

/**
 * Whether a folder is kept, by its path.
 *
 * @example keepsFolder({ grooves: [], folders: [['Harbour']] }, ['Harbour']) // true
 */
export const keepsFolder = ({ folders }: Favourites, path: string[]): boolean =>
  folders.some((one) => samePath(one, path));

/**
 * Marks a groove, or takes its mark away.
 *
 * @example toggleGroove(NO_FAVOURITES, { id: 'g', name: 'Rain' }).grooves // [{ id: "g", name: "Rain" }]
 */
export const toggleGroove = (keepers: Favourites, groove: { id: string; name: string }): Favourites => ({
  ...keepers,
  grooves: keepsGroove(keepers, groove.id)
    ? keepers.grooves.filter(({ id }) => id !== groove.id)
    : [...keepers.grooves, { id: groove.id, name: groove.name }],
});

/** Keeps a folder, or lets go of it. @example toggleFolder(NO_FAVOURITES, ['Harbour']).folders // [["Harbour"]] */
export const toggleFolder = (keepers: Favourites, path: string[]): Favourites => ({
  ...keepers,
  folders: keepsFolder(keepers, path)
    ? keepers.folders.filter((one) => !samePath(one, path))
    : [...keepers.folders, path],
});

/** Keepers as the text of a file. @example JSON.parse(favouritesText(NO_FAVOURITES)).kind // "ruddik.keepers" */
export const favouritesText = (keepers: Favourites): string =>
  `${JSON.stringify({ kind: 'ruddik.keepers', version: 1, ...keepers }, null, 1)}\n`;

/**
 * Both lists, nothing twice.
 *
 * @example joinedFavourites(NO_FAVOURITES, { grooves: [], folders: [['Harbour']] }).folders // [["Harbour"]]
 */
export const joinedFavourites = (a: Favourites, b: Favourites): Favourites => ({
  grooves: [...a.grooves, ...b.grooves.filter(({ id }) => !keepsGroove(a, id))],
  folders: [...a.folders, ...b.folders.filter((path) => !keepsFolder(a, path))],
});
