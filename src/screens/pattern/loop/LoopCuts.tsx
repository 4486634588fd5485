import { useState } from 'react';
import type { Lane, Loop } from '../../../../core/document/schema';
import { reversedAt } from '../../../../core/edit/sounds';
import { evenMarks, marksAt, movedMark, withMark, withoutMark } from '../../../../core/samples/loops';
import { hearLane } from '../../../audio/player';
import { WaveHand } from '../../../strings/WaveHand';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Chips, Group } from '../../../ui/Layout';
import { Range } from '../../../ui/Range';
import { Words } from '../../../ui/Words';
import type { LoopFound } from '../../../workers/soundDesk';
import { words } from '../../../words/sounds';
import { foundIn, USUAL_SENSITIVITY, type OpenLoop } from './openLoop';

const EVEN = [4, 8, 16, 32, 64];
const ZOOMS = [1, 2, 4, 8];

/** A lane that plays a loop without being in the beat. */
const tryLane = (loop: Loop): Lane => ({
  id: 'loop',
  name: words.loop,
  instrument: 'snare',
  note: 36,
  channel: 10,
  level: 1,
  pan: 0,
  mute: false,
  solo: false,
  loop,
});

/** How a loop is cut: at its hits or evenly, and every mark by hand. */
export const LoopCuts = ({
  state: { wave, found, loop, sample },
  quarters,
  onLoop,
  onFound,
}: {
  state: OpenLoop;
  quarters: number;
  onLoop: (loop: Loop) => void;
  onFound: (found: LoopFound, loop: Loop) => void;
}) => {
  const [sensitivity, setSensitivity] = useState(USUAL_SENSITIVITY);
  const [even, setEven] = useState('hits');
  const [chosen, setChosen] = useState<number | null>(null);
  const [zoom, setZoom] = useState(0);
  const { marks, end, reversed = [] } = loop;
  const cut = (next: number[]) => onLoop({ ...loop, marks: next, reversed: reversedAt(loop, next) });
  const listen = async (to: number) => {
    setSensitivity(to);
    const next = await foundIn(sample, to, quarters);
    if (!next) return;
    const found = marksAt(next.onsets, next.seconds);
    onFound(next, { ...loop, marks: found, reversed: reversedAt(loop, found) });
  };
  const place = chosen !== null && chosen < marks.length ? chosen : null;
  const turned = place !== null && reversed.includes(place);
  return (
    <Group title={words.howCut}>
      <Choice
        label={words.howCut}
        short={words.slices(marks.length)}
        value={even}
        options={[
          { value: 'hits', name: words.atItsHits },
          ...EVEN.map((parts) => ({ value: String(parts), name: `${parts} ${words.evenly.toLowerCase()}` })),
        ]}
        onChange={(to) => {
          setEven(to);
          cut(to === 'hits' ? marksAt(found.onsets, found.seconds) : evenMarks(end, Number(to)));
        }}
      />
      {even === 'hits' ? (
        <Range
          label={words.sensitivity}
          short={words.sensitivity}
          value={sensitivity}
          least={0}
          most={100}
          step={1}
          shown={String(sensitivity)}
          onChange={(to) => void listen(to)}
        />
      ) : null}
      <WaveHand
        label={words.loopWave}
        wave={wave}
        zoom={ZOOMS[zoom]!}
        to={end}
        chosen={place}
        onChoose={setChosen}
        marks={marks.map((mark, at) => ({ name: words.slice(at + 1), at: mark, low: reversed.includes(at) }))}
        onMove={(at, to) => onLoop({ ...loop, marks: movedMark(marks, at, to, end) })}
        onTap={(at) => cut(withMark(marks, at, end))}
      />
      <Chips>
        <Chip disabled={zoom === 0} onPress={() => setZoom(zoom - 1)}>
          {words.unzoom}
        </Chip>
        <Chip disabled={zoom === ZOOMS.length - 1} onPress={() => setZoom(zoom + 1)}>
          {words.zoom}
        </Chip>
      </Chips>
      {place === null ? null : (
        <>
          <Words live>{words.slice(place + 1)}</Words>
          <Chips>
            <Chip onPress={() => void hearLane({ kit: 'quay' }, tryLane(loop), 100, place)}>
              {words.hearSlice}
            </Chip>
            <Chip
              pressed={turned}
              onPress={() =>
                onLoop({
                  ...loop,
                  reversed: turned ? reversed.filter((at) => at !== place) : [...reversed, place],
                })
              }
            >
              {words.backwards}
            </Chip>
            <Chip onPress={() => cut(withMark(marks, (marks[place]! + (marks[place + 1] ?? end)) / 2, end))}>
              {words.addMark}
            </Chip>
            <Chip disabled={!place} onPress={() => cut(withoutMark(marks, place))}>
              {words.removeMark}
            </Chip>
          </Chips>
        </>
      )}
    </Group>
  );
};
