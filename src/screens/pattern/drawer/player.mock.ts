/** What is heard and struck, in place of a player. */
export const mockPlayer = {
  /** Where play stands, in ticks; null while nothing is heard. */
  heard: null as number | null,
  pattern: null as string | null,
  strikes: [] as [string, number][],
};

export const strikeLane = (lane: string, velocity: number): Promise<void> => {
  mockPlayer.strikes.push([lane, velocity]);
  return Promise.resolve();
};
export const playedTick = () => mockPlayer.heard;
export const heardAt = () =>
  mockPlayer.heard === null ? null : { tick: mockPlayer.heard, patternId: mockPlayer.pattern };
