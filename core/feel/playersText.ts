import type { Band } from '../document/playersSchema';
import type { MidiNote } from '../units';

/** Apart from reading, which needs the checks: writing is wanted where they are not loaded. */

/** The version of the file that is read and written. */
export const PLAYERS_VERSION = 1;

/**
 * Writes the players of a beat as a file.
 *
 * @param notesOf the note numbers of a lane
 * @example writePlayers({ on: true, tempo: false, players: [] }, 7, () => []).includes('ruddik.players') // true
 */
export const writePlayers = (
  { players }: Band,
  seed: number,
  notesOf: (laneId: string) => MidiNote[],
): string => {
  const name = new Map(players.map((player) => [player.id, player.name]));
  return `${JSON.stringify(
    {
      kind: 'ruddik.players',
      version: PLAYERS_VERSION,
      seed,
      players: players.map(({ lanes, follows, id: _, ...player }) => ({
        ...player,
        notes: [...new Set(lanes.flatMap(notesOf))],
        follows: Object.fromEntries(
          Object.entries(follows).map(([id, share]) => [name.get(id) ?? id, share]),
        ),
      })),
    },
    null,
    1,
  )}\n`;
};
