import { Figure } from '../../../ui/Figure';
import { useDeferredValue, useMemo } from 'react';
import type { Feel } from '../../../../core/document/feelSchema';
import { barTicks, beatTicks } from '../../../../core/document/meter';
import type { Beat, Pattern } from '../../../../core/document/schema';
import { MENDS, sticking } from '../../../../core/hands/sticking';
import { handStrokes } from '../../../../core/play/plan';
import { handsToggled } from '../../../store/look';
import { selectBeat, selectPattern, useApp, useDo } from '../../../store/store';
import { CheckBox } from '../../../ui/CheckBox';
import { figure } from '../../../ui/figures';
import { Group } from '../../../ui/Layout';
import { Para } from '../../../ui/Words';
import { words } from '../../../words/hands';
import type { HumanizeChange } from '../../../../core/edit/defined/feel';
import { editShownFeel } from '../edit';

const set = (change: HumanizeChange, gesture?: string) =>
  editShownFeel({ edit: 'setHumanize', args: { change } }, gesture);

/** So many are told one by one. */
const MOST_TOLD = 4;

/** What of a pattern one drummer cannot play, and how much there is of it. */
const lookAt = (beat: Beat, pattern: Pattern, leftHanded: boolean) => {
  const strokes = handStrokes(beat, pattern);
  const stuck = sticking(strokes, { leftHanded, beat: beatTicks(pattern.meter) });
  const bar = barTicks(pattern.meter);
  const faults = strokes.flatMap(({ at, lane }, place) => {
    const { fault } = stuck[place]!;
    if (!fault) return [];
    const inBar = figure(1 + Math.round((100 * (at % bar)) / beatTicks(pattern.meter)) / 100);
    return [words.where(beat.lanes[lane]!.name, words.place(1 + Math.floor(at / bar), inBar), MENDS[fault])];
  });
  return { count: strokes.length, faults };
};

/** What one drummer has to play is as it is written: the feel, which is being turned here, has no part in it. */
const alikeButFeel = (one: Beat, other: Beat): boolean =>
  one === other ||
  (Object.keys({ ...one, ...other }) as (keyof Beat)[]).every(
    (key) => key === 'feel' || one[key] === other[key],
  );

/** How unlike the hands are, and whether one drummer can play it. */
export const HandsPart = ({ feel }: { feel: Feel }) => {
  const { hands = 0, leftHanded = false } = feel.humanize;
  const beat = useDeferredValue(useApp((state) => selectBeat(state)!, alikeButFeel));
  const patternId = useApp((state) => selectPattern(state)?.id);
  const pattern = beat.patterns.find(({ id }) => id === patternId) ?? beat.patterns[0]!;
  const showHands = useApp(({ look }) => look.showHands);
  const act = useDo();
  const { count, faults } = useMemo(() => lookAt(beat, pattern, leftHanded), [beat, pattern, leftHanded]);
  return (
    <Group title={words.hands}>
      <Figure
        of="share"
        label={words.weakerHand}
        short={words.weakerShort}
        value={hands}
        step={0.05}
        onChange={(to, gesture) => set({ hands: to }, gesture)}
      />
      <Para quiet>{words.about}</Para>
      <CheckBox checked={leftHanded} onChange={(to) => set({ leftHanded: to })}>
        {words.leftHanded}
      </CheckBox>
      <CheckBox checked={showHands} onChange={() => act(handsToggled())}>
        {words.show}
      </CheckBox>
      <Para live>
        {!count ? words.nothing : faults.length ? words.cannot(faults.length, count) : words.allCan(count)}
      </Para>
      {faults.slice(0, MOST_TOLD).map((text, at) => (
        <Para key={at} quiet>
          {text}
        </Para>
      ))}
      {faults.length > MOST_TOLD ? <Para quiet>{words.more(faults.length - MOST_TOLD)}</Para> : null}
    </Group>
  );
};
