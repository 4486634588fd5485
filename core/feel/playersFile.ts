import { z } from 'zod';
import { MOST } from '../document/choices';
import { figure } from '../document/figure';
import { INSTRUMENT_IDS, instrument, type InstrumentId } from '../document/instruments';
import type { Band, Player } from '../document/playersSchema';
import { bandSchema } from '../document/playersSchema';
import { RANGES } from '../document/ranges';
import { faultText, isRaw, parsed, shown, type Read } from '../document/reading';
import type { MidiNote } from '../units';
import { PLAYERS_VERSION } from './playersText';

/** Players as a file: by the notes that they play, and by their names. */

const fileSchema = z.strictObject({
  kind: z.literal('ruddik.players'),
  version: z.literal(PLAYERS_VERSION),
  seed: z.int().min(0).max(0xffffffff).optional(),
  players: z
    .array(
      z.strictObject({
        name: z.string().trim().min(1).max(MOST.name),
        /** General MIDI numbers, or ids of instruments. */
        notes: z.array(z.union([z.int().min(0).max(127), z.enum(INSTRUMENT_IDS)])).max(128),
        clock: figure(RANGES.clock),
        touch: figure(RANGES.touch),
        click: figure(RANGES.share),
        follows: z.record(z.string(), figure(RANGES.share)).optional(),
      }),
    )
    .min(1)
    .max(MOST.players),
});

/** The players of a file; their lanes are note numbers, as text. */
export interface PlayersFile {
  seed: number | null;
  band: Band;
}

const noteOf = (note: number | InstrumentId): MidiNote =>
  typeof note === 'number' ? note : instrument(note).note;

/**
 * Reads players from the text of a file.
 *
 * @returns the players, or a sentence for a person that says what is wrong and where; it never throws
 * @example readPlayers('{}') // { ok: false, error: 'It is JSON, but no players of Ruddik.' }
 */
export const readPlayers = (text: string): Read<PlayersFile> => {
  const json = parsed(text);
  if (!json.ok) return json;
  const raw = json.value;
  if (!isRaw(raw) || raw['kind'] !== 'ruddik.players')
    return { ok: false, error: 'It is JSON, but no players of Ruddik.' };
  if (typeof raw['version'] === 'number' && raw['version'] !== PLAYERS_VERSION)
    return {
      ok: false,
      error: `It is in version ${shown(raw['version'])}; this Ruddik reads ${PLAYERS_VERSION}.`,
    };
  const checked = fileSchema.safeParse(raw);
  if (!checked.success) return { ok: false, error: faultText(checked.error.issues, raw) };
  const { seed = null, players } = checked.data;
  const names = players.map(({ name }) => name);
  const twice = names.find((name, at) => names.indexOf(name) !== at);
  if (twice !== undefined) return { ok: false, error: `Two of its players are called ${shown(twice)}.` };
  for (const { name, follows = {} } of players)
    for (const other of Object.keys(follows))
      if (other === name || !names.includes(other))
        return {
          ok: false,
          error: `${shown(name)} follows ${shown(other)}, who is no other player of the band.`,
        };
  const given: Player[] = players.map(({ notes, follows = {}, ...player }) => ({
    ...player,
    id: player.name,
    lanes: [...new Set(notes.map((note) => String(noteOf(note))))],
    follows,
  }));
  const over = players.find(
    ({ click, follows = {} }) => Object.values(follows).reduce((sum, share) => sum + share, click) > 1 + 1e-6,
  );
  if (over)
    return {
      ok: false,
      error: `${shown(over.name)} goes by more than it has attention for: all that a player follows, the click included, is at most 1.`,
    };
  const whole = bandSchema.safeParse({ on: true, tempo: false, players: given.map(withId) });
  if (!whole.success) return { ok: false, error: faultText(whole.error.issues, raw) };
  return { ok: true, value: { seed, band: { on: true, tempo: false, players: given } } };
};

/** Names may hold what ids may not: for the check alone they are numbered. */
const withId = (player: Player, at: number, all: Player[]): Player => ({
  ...player,
  id: `p${at}`,
  lanes: [],
  follows: Object.fromEntries(
    Object.entries(player.follows).map(([name, share]) => [
      `p${all.findIndex(({ id }) => id === name)}`,
      share,
    ]),
  ),
});
