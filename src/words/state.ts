/** What is said of keeping, loading and storing. */
export const words = {
  aBeatWithoutAName: 'A beat without a name',
  damagedData: 'damaged data',
  aBeat: 'A beat',
  wentBeyondTheEnd: (hits: number) =>
    hits === 1
      ? '1 hit is past the end now. It is kept, and comes back when there is room.'
      : `${hits} hits are past the end now. They are kept, and come back when there is room.`,
  areOneNote: (a: string, b: string, note: number, channel: number, more: number) =>
    `${a} and ${b} are both note ${note} on channel ${channel} now${more ? `, and ${more} more ${more === 1 ? 'pair' : 'pairs'} alike` : ''}: in files and at your devices they are one drum.`,
  keyWentOver: (key: string, has: string, lost: string) =>
    `Key ${key} begins “${has}” now, and no longer “${lost}”.`,
  nameDamagedSetAside: (name: string) => `${name} (damaged, set aside)`,
  aPartOfRuddikCould:
    'A part of Ruddik could not be fetched. What you did since then waits, and is done when it comes; Ruddik keeps trying.',
  generalMidi: 'General MIDI',
  whatIsKeptOfThe: 'What is kept of the beat could not be read.',
  saveBeatToAFile: 'Save beat to a file',
  theBrowsersStorageWhyYour: (why: string) =>
    `The browser’s storage ${why}. Your work goes on here, but is not kept until that changes: save it to a file.`,
  isFull: 'is full',
  doesNotTakeIt: 'does not take it',
  aSavedBeatCouldNot: (kept: string, error: string) =>
    `A saved beat could not be read and was set aside as “${kept}”. ${error}`,
  downloadIt: 'Download it',
  editsOfNameThatCould: (name: string) => `Edits of ${name} that could not be read`,
  someEditsOfNameCould: (name: string) =>
    `Some edits of “${name}” could not be read; what is left of them was set aside.`,
  downloadThem: 'Download them',
  nameBeforeAnEditWas: (name: string) => `${name} (before an edit was taken back)`,
  editWasTakenBack: (edits: readonly string[], fault: string) =>
    `${
      edits.length
        ? `Your edit (${edits.slice(0, 3).join(', ')}) could not have been opened again and was undone`
        : 'The last change could not have been opened again and was undone'
    }. ${fault} The beat as it was is set aside under Beats.`,
  madeCouldNotBeKept: (made: string, fault: string) => `“${made}” was not added. ${fault}`,
  nameWasOpenedWhole: (name: string) => `“${name}” was opened, with all that was in it.`,
  nameWasOpenedWithout: (name: string, left: readonly string[]) =>
    `“${name}” was opened without what was damaged. ${left[0]}${left.length > 1 ? ` (and ${left.length - 1} more)` : ''} The damaged text stays under Beats.`,
  asideCouldNotBeOpened: (fault: string) => `It was not opened. ${fault}`,
  openWhatCanBeRead: 'Open what can be read',
  summaryWasSavedByA: (summary: string) =>
    `“${summary}” was saved by a newer Ruddik. It stays as it is, and opens once this one is up to date.`,
  manyLookedThrough: (many: number) => `${many} ${many === 1 ? 'beat' : 'beats'} looked through`,
  lookedMendedMendedOrSet: (looked: string, mended: number) => `${looked}; ${mended} mended or set aside.`,
  lookedAllIsAsIt: (looked: string) => `${looked}; all is as it should be.`,
  settingsThatCouldNotBe: 'Settings that could not be read',
  theyWereReplacedByThose: 'They were replaced by those that a first start has.',
  beatIsNotKeptYet: (beat: string) =>
    `“${beat}” is not kept yet, since the browser’s storage does not take it. Save it to a file first, then open another.`,
  beatIsOpenInAnother: (beat: string) =>
    `“${beat}” is open in another tab too. What is done in one appears in the other.`,
  beatWasDeletedInAnother: (beat: string) =>
    `“${beat}” was deleted in another tab. It is still here: your next edit keeps it again.`,
  theBeat: 'The beat',
  nameWasDeleted: (name: string) => `“${name}” was deleted.`,
  undoDelete: 'Undo delete',
  fileWasNotOpenedReason: (file: string, reason: string) => `“${file}” was not opened. ${reason}`,
  manyMoreOfItsBeats: (many: number) => `${many} more of its beats could not be read either.`,
  addedWasOpenedFromFile: (added: string, file: string) => `“${added}” was opened from “${file}”.`,
  manyBeatsWereOpenedFrom: (many: number, file: string) => `${many} beats were opened from “${file}”.`,
  newBeat: 'New beat',
  oneCopy: (one: string) => `${one} copy`,
  madeIsAmongYourBeats: (made: string) => `“${made}” is among your beats now.`,
  whatGoesFromLeastTo: (what: string, least: number, most: number, asked: number, kept: number) =>
    `${what} runs from ${least} to ${most}: ${asked} became ${kept}.`,
  theGroovesThatAreKept: 'The grooves that are kept cannot be read.',
  mendedGroovesWereKeptBut: (mended: number) => `${mended} grooves were kept but not listed; they are now.`,
  allGroovesThatAreKept: 'All grooves that are kept are listed.',
};
