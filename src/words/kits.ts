/** Texts about kits and their drums. */
export const words = {
  kits: 'Kits',
  aboutKits: 'Kits and their drums',
  plays: 'Plays',
  choose: (kit: string) => `Play on ${kit}`,
  drumsOf: (kit: string) => `Drums of ${kit}`,
  everyDrum:
    'Every drum of General MIDI sounds in every kit; what a kit has none of sounds as its nearest relative.',
  hear: (drum: string) => `Hear ${drum}`,
  ring: (seconds: string) => `rings ${seconds} s`,
  bright: (hertz: string) => `bright at ${hertz}`,
  strikes: (n: number) => `${n} strikes`,
  asAnother: (drum: string) => `sounds as ${drum}`,
  pictures: 'On the left its wave, on the right its tones from low to high, struck hard.',
  measuring: 'Measuring the drums…',
  notMeasured: 'The drums could not be measured.',
  again: 'Try again',
  allDrums: 'All drums',
  inBeat: 'In the beat',
};
