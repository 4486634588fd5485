import { capital } from '../capital';
import { GROUP_NAMES } from '../document/drumGroups';
import type { DrumGroup } from '../document/choices';
import { count } from '../document/text';
import { surenessOf, type PlayedFeel, type PlayedPlayer, type Sureness } from './playedFeel';
import { oneFigure, tightness } from './reportText';

/** How a performance is played, in words, each with how sure it is. */

const SURE: Record<Sureness, string> = {
  sure: 'sure',
  fair: 'fairly sure',
  little: 'hardly more than a guess',
};

/** Following weaker than this is not told: it cannot be heard. */
const LEAST_TOLD = 0.05;
const percent = (share: number): string => `${Math.round(100 * share)} %`;

const whomText = ({ click, follows }: PlayedPlayer): string => {
  const all: [string, number][] = [
    ...(Object.entries(follows) as [DrumGroup, number][]).map(([group, share]): [string, number] => [
      `the ${GROUP_NAMES[group]}`,
      share,
    ]),
    ['the click', click],
  ];
  const told = all.filter(([, share]) => share >= LEAST_TOLD).sort(([, a], [, b]) => b - a);
  return told.length
    ? `go by ${told.map(([name, share]) => `${name} ${percent(share)}`).join(', ')}`
    : 'go by nobody';
};

/** One player in words. @example playerText({ group: 'kick', clock: 0.5, touch: 3, click: 0.2, follows: {}, doubt: 0.1 }) // "Kick drums go by the click 20 %; clock 0.5 ms, touch 3.0 ms, give or take 10 %." */
export const playerText = (player: PlayedPlayer): string =>
  `${capital(GROUP_NAMES[player.group])} ${whomText(player)}; clock ${oneFigure(player.clock)} ms, touch ${oneFigure(player.touch)} ms, give or take ${percent(player.doubt)}.`;

/** The sentences about its players; a sentence where too little was heard. @example playersLines({ ...playedFeel('Rain', performance, () => 'snare')!, players: null }).length // 1 */
export const playersLines = (played: PlayedFeel): string[] =>
  played.players
    ? [...played.players.map(playerText), `Who follows whom is ${SURE[surenessOf(played).players]}.`]
    : ['Too little is heard to say who follows whom: two groups of drums on most eighths of 5 bars or more.'];

/** All that is said of how something was played. @example playedLines(playedFeel('Rain', performance, () => 'snare')!).length // 3 */
export const playedLines = (played: PlayedFeel): string[] => [
  `Where hits lie, from ${count(played.bars, 'bar')}: good to ${oneFigure(played.doubt)} ms, ${SURE[surenessOf(played).places]}.`,
  `Hits stray ${oneFigure(played.spread)} ms from it (${tightness(played.spread)}), and ${oneFigure(played.velocitySpread)} in velocity.`,
  ...playersLines(played),
];
