/** What the list of beats says. */
export const words = {
  theBrowserGaveNoSound:
    'The browser gave no sound output. Check that a device is connected, then play again.',
  whatOfAskedIsOpened: (asked: string) => `What of ${asked} is opened?`,
  eachNoteBecomesADrum:
    'Each note becomes a drum by its number: a bass or keys would come in as kicks and bells.',
  openThem: 'Open them',
  notNow: 'Not now',
  aBeatNeedsAName: 'A beat needs a name of at least one letter.',
  renameBeat: 'Rename beat',
  cancel: 'Cancel',
  rename: 'Rename',
  name: 'Name',
  savedByANewerRuddik: 'Saved by a newer Ruddik. Update to open it.',
  tempoBpmMeterBarsBar: (tempo: number, meter: string, bars: number) =>
    `${tempo} BPM, ${meter}, ${bars} bar${bars === 1 ? '' : 's'}`,
  notReadYet: 'Not read yet',
  openBeat: (beat: string) => `Open ${beat}`,
  open: 'open',
  stopBeat: (beat: string) => `Stop ${beat}`,
  hearBeat: (beat: string) => `Hear ${beat}`,
  renameBeat2: (beat: string) => `Rename ${beat}`,
  duplicateBeat: (beat: string) => `Duplicate ${beat}`,
  saveBeatToAFile: (beat: string) => `Save ${beat} to a file`,
  deleteBeat: (beat: string) => `Delete ${beat}`,
  openAside: (aside: string) => `Open what can be read of ${aside}`,
  downloadAside: (aside: string) => `Download ${aside}`,
  deleteAside: (aside: string) => `Delete ${aside}`,
  asTheSystem: 'As the system',
  night: 'Night',
  day: 'Day',
  theme: 'Theme',
  theBrowsersStorageCannotBe: 'The browser’s storage cannot be read.',
  storage: 'Storage',
  keepAFolder: 'Keep a folder in step',
  folderAbout:
    'A folder of yours, on a shared disk say, then holds every beat as a file, and what changes there comes here.',
  folderAsks: (name: string) => `“${name}” was kept in step. The browser wants you to allow it again.`,
  folderKept: (name: string, told: string) => `In step with the folder “${name}”. ${told}`.trim(),
  goOnWith: (name: string) => `Go on with “${name}”`,
  stepNow: 'Bring in step now',
  letFolderGo: 'Let the folder go',
  inStep: (many: number) => `${many} ${many === 1 ? 'beat is' : 'beats are'} the same on both sides.`,
  changedInBoth: (name: string) =>
    `“${name}” changed both here and in the folder. You now have both versions; the folder’s is “${name} (from the folder)”.`,
  changedInFolder: (name: string) => `“${name}” was changed in the folder, and is up to date here now.`,
  bringMineBack: 'Bring mine back too',
  addWhatWasSent: (files: number) => (files === 1 ? 'Add this file?' : `Add these ${files} files?`),
  sentAbout:
    'Another app or a web page sent this to Ruddik. Listen first if you like. Nothing is kept unless you add it.',
  whatWasSent: 'What was sent',
  addToBeats: 'Add to your beats',
  doNotAdd: 'Don’t add',
  notReadable: 'it could not be read.',
  aboutRuddik: 'About Ruddik',
  licences: 'Licences',
  fromTheFolder: (name: string) => `${name.slice(0, 62)} (from the folder)`,
  goneFromFolder: (names: readonly string[], folder: string) =>
    names.length === 1
      ? `The file of “${names[0]}” is no longer in “${folder}”.`
      : `The files of ${names.length} beats are no longer in “${folder}”: ${names.slice(0, 4).join(', ')}${names.length > 4 ? ' and more' : ''}.`,
  keepAndWrite: 'Keep, write again',
  deleteHereToo: 'Delete here too',
  wasPutAway: (names: readonly string[]) =>
    `${names.length === 1 ? `The file of “${names[0]}”` : `The files of ${names.length} beats`} went to the folder’s subfolder “deleted”.`,
  folderOutOfReach: (name: string) =>
    `“${name}” cannot be reached now. Everything here is kept; it is tried again.`,
  noBeatInIt: 'There is no beat in it.',
  whatTakesRoom: 'What takes room',
  kindOfThing: 'What',
  howMany: 'How many',
  howLarge: 'Size',
  roomSamples: 'Samples',
  roomBeats: 'Beats, with their history',
  roomGrooves: 'Grooves brought in',
  roomKits: 'Kits of your own',
  roomPlayed: 'What you played in',
  roomOther: 'Settings and lists',
  size: (bytes: number) =>
    bytes < 1e4
      ? `${Math.round(bytes)} B`
      : bytes < 1e6
        ? `${Math.round(bytes / 1e3)} kB`
        : `${(bytes / 1e6).toFixed(1)} MB`,
  roomOf: (used: string, all: string) =>
    `${used} in use, the app itself included, of ${all} that the browser gives.`,
  clearUnused: (many: number, size: string) =>
    `Clear ${many} unused ${many === 1 ? 'sample' : 'samples'}, ${size}`,
  cleared: (many: number, size: string) =>
    `${many} ${many === 1 ? 'sample' : 'samples'} that nothing plays cleared: ${size}.`,
  unusedNotKnown:
    'Another window of Ruddik does not answer, so nobody knows which samples it needs. Close it, then look again.',
  lookingThroughIt: 'Looking through it…',
  checkWhatIsStored: 'Check what is stored',
  beatsAndGroovesAreKept:
    'Beats and grooves are kept in this browser. Lists that disagree with them are mended.',
  itIsLargerThan64: 'It is larger than 64 MB.',
  itIsLargerThan400: 'It is larger than 400 MB.',
  beatFile: 'Beat file',
  beats: 'Beats',
  manyInThisBrowser: (many: number) => `${many} in this browser`,
  lookingForBeats: 'Looking for beats',
  backToThePattern: 'Back to the pattern',
  newBeat: 'New beat',
  openAFile: 'Open a file',
  saveAllBeats: 'Save all beats',
  beatsAreKeptHereAs: 'Beats are kept here as you make them. Begin a new one, or open a file.',
};
