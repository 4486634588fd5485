import { count } from '../../core/document/text';

/** What the parts of every screen say. */
export const words = {
  tracksAndChannels: 'Tracks and channels',
  nameChannelChannel: (name: string, channel: number, drums: boolean, notes: number) =>
    `${name}, channel ${channel}${drums ? ' (drums)' : ''}: ${count(notes, 'note')}`,
  close: 'Close',
  labelGoesFromLeastTo: (
    label: string,
    least: number | string,
    most: number | string,
    shown: string,
    kept: number | string,
  ) => `${label} runs from ${least} to ${most}: ${shown} became ${kept}.`,
  thisScreen: 'This screen',
  oneMoment: 'One moment…',
  whatCouldNotBeFetched: (what: string) =>
    `${what} could not be fetched. Your beats are kept, and what plays goes on.`,
  tryAgain: 'Try again',
  atOnce: 'at once',
  atTheNextBeat: 'at the next beat',
  atThePatternsEnd: 'at the pattern’s end',
  whilePlayingAnotherPatternBegins: 'While playing, another pattern begins',
  begins: 'Begins',
  labelScrolledSideways: (label: string) => `${label}, scrolled sideways`,
  putTheHintAway: 'Put the hint away',
  dismiss: 'Dismiss',
};
