/** Texts about lanes that play pitches. */
export const words = {
  tuned: 'Tuned',
  playsPitches: 'Plays pitches',
  heightIsPitch: 'Height is pitch',
  root: 'Root',
  rootOf: (lane: string) => `Root of ${lane}`,
  scale: 'Scale',
  scaleOf: (lane: string) => `Scale of ${lane}`,
  lowest: 'lowest',
  lowestOf: (lane: string) => `Lowest note of ${lane}`,
  highest: 'highest',
  highestOf: (lane: string) => `Highest note of ${lane}`,
  itsNotes: (notes: string) => `Its notes: ${notes}.`,
  aLaneMayPlay:
    'A marimba, a kalimba, a log drum: a lane that plays pitches has a scale, and its open string shows them by height.',
  noteOfHits: 'Note of the hits',
  note: 'note',
  aNoteHigher: 'A note higher',
  aNoteLower: 'A note lower',
  chord: (name: string) => `Together they are ${name}.`,
  playNote: (lane: string, note: string) => `Play ${lane}, ${note}`,
  midiPlays: (lane: string) => `What comes from a MIDI input plays ${lane}, which is open.`,
};
