/** What is said of dragging and dropping. */
export const words = {
  namedAre: (names: string, many: number) => `${names} ${many === 1 ? 'is' : 'are'}`,
  moveItem: (item: string) => `Move ${item}`,
  spaceLiftsItArrowsMove:
    'Space lifts it, arrows move it, space puts it down, Escape leaves it where it was.',
  saidLifted: (said: string) => `${said} lifted.`,
  saidAtPlacePlaceOf: (said: string, place: number, many: number) => `${said} at place ${place} of ${many}.`,
  saidPutDownAtPlace: (said: string, place: number) => `${said} put down at place ${place}.`,
  saidStaysWhereItWas: (said: string) => `${said} stays where it was.`,
  whatDragsTheRowsOf: 'What drags the rows of this list',
  zipArchivesOfMidiFiles: 'ZIP archives of MIDI files on Grooves',
  midiFilesOnGroovesAs: 'MIDI files on Grooves (as grooves), Beats (as a beat) or Feel (as a template)',
  beatsOnBeatsTemplatesFeels: 'beats on Beats; templates, feels, maps and keepers are opened on their pages',
  beatsAndMidiFilesNothing: 'beats and MIDI files, nothing else, on Beats and Grooves',
  manyFilesAre: (many: number) => `${many} files are`,
  notTakenHereDrop: (which: string, where: string) => `${which} not taken here. Drop ${where}.`,
};
