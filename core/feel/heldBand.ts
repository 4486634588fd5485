import type { Band } from '../document/playersSchema';

/**
 * A band in which nobody goes by more than there is attention for: what is too much is taken off all alike; who is not there is
 * followed by nobody.
 *
 * @example heldBand({ on: true, tempo: false, players: [] }).players // []
 */
export const heldBand = (band: Band): Band => {
  const ids = new Set(band.players.map(({ id }) => id));
  return {
    ...band,
    players: band.players.map((player) => {
      const known = Object.entries(player.follows).filter(
        ([id, share]) => share > 0 && id !== player.id && ids.has(id),
      );
      const all = known.reduce((sum, [, share]) => sum + share, player.click);
      const held = (share: number) => (all > 1 ? share / all : share);
      return {
        ...player,
        click: held(player.click),
        follows: Object.fromEntries(known.map(([id, share]) => [id, held(share)])),
      };
    }),
  };
};
