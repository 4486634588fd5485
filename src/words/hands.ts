/** Hands of a drummer. */
export const words = {
  hands: 'Hands',
  weakerHand: 'Weaker hand',
  weakerShort: 'Weaker',
  about:
    'The weaker hand comes later and softer, the more the faster it goes. Hands are found by the least effort.',
  hand: 'Hand',
  handOfHits: 'Hand that plays the hits',
  names: { R: 'Right', L: 'Left' },
  found: 'Easiest',
  byRule: 'Hands by a rule',
  alternate: 'Hand to hand',
  leadingHand: 'Leading hand',
  asRudiments: 'As rudiments',
  show: 'R and L under the beads',
  showing: 'Hands under the beads',
  alsoShown: 'sticking R L drummer',
  leftHanded: 'Left-handed: the left hand leads',
  allCan: (strokes: number) => `One drummer can play all ${strokes} strokes of a pass.`,
  nothing: 'Nothing to play yet.',
  cannot: (many: number, strokes: number) =>
    `${many} of ${strokes} strokes of a pass ${many === 1 ? 'is' : 'are'} beyond one drummer:`,
  where: (drum: string, place: string, mend: string) => `${drum}, ${place}: ${mend}.`,
  place: (bar: number, beat: string) => `bar ${bar}, beat ${beat}`,
  more: (many: number) => `and ${many} more.`,
};
