import { Dots } from '../../strings/Dots';
import { Group, Figures, Chips } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import { nanoid } from '@reduxjs/toolkit';
import { useMemo, useState } from 'react';
import { GRIDS, type Grid, gridTicks } from '../../../core/document/grid';
import type { Beat } from '../../../core/document/schema';
import { barTicks } from '../../../core/document/meter';
import { dotsOf, findGrid, groupCurves, outliers, shapeFrom } from '../../../core/analysis/extractTemplate';
import type { DrumGroup } from '../../../core/document/choices';
import { drumGroupOf, GROUP_NAMES } from '../../../core/document/drumGroups';
import { drumGroupOfFile } from '../../../core/midi/read/midiFile';
import { instrumentOf } from '../../../core/document/instruments';
import { beatEdited } from '../../store/doc';
import { noticed } from '../../store/slices';
import { useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { NameField } from '../../ui/NameField';
import { TemplatePicture } from '../../strings/TemplatePicture';
import { templateBarsOf, type TemplateSource } from './templates';
import { words } from '../../words/feel';

const OFFERED: Grid[] = GRIDS.filter((grid) => /^1\/(8|16|32)[T]?$/.test(grid));
/** The group of drums of a performance's lane: of the beat's lane, or of a General MIDI note. */
const groupIn = (lane: string, beat: Beat): DrumGroup | null => {
  const own = beat.lanes.find(({ id }) => id === lane);
  return own ? drumGroupOf(own.instrument) : drumGroupOfFile(lane);
};

const laneName = (lane: string, beat: Beat): string => {
  const [channel, note] = lane.split('/');
  const known = beat.lanes.find(({ id }) => id === lane)?.name;
  if (known || note === undefined) return known ?? lane;
  return (
    (channel === '10' ? instrumentOf(Number(note)) : null) ?? words.noteNoteChannelChannel2(note, channel)
  );
};

interface TakeTemplateProps {
  beat: Beat;
  source: TemplateSource;
  onDone: () => void;
}

const MOST_SLOTS = 1024;
/** All lanes, with a curve for each group of drums. */
const EACH = 'each group';
/** What the choice of one group begins with: a lane may have its name. */
const GROUP = 'group';

/** Takes a template from a performance: its grid and length chosen, odd notes dropped, then named. */
export const TakeTemplate = ({ beat, source, onDone }: TakeTemplateProps) => {
  const { performance } = source;
  const found = useMemo(() => findGrid(performance), [performance]);
  const all = templateBarsOf(performance);
  const [grid, setGrid] = useState<Grid>(found);
  const [bars, setBars] = useState(all);
  const [lane, setLane] = useState('');
  const [dropped, setDropped] = useState<ReadonlySet<number>>(new Set());
  const act = useDo();
  const length = bars * barTicks(performance.meter);
  const lanes = [...new Set(performance.notes.map((note) => note.lane))];
  const groups = [...new Set(lanes.flatMap((one) => groupIn(one, beat) ?? []))];
  const meant = lane.startsWith(`${GROUP} `)
    ? lanes.filter((one) => `${GROUP} ${groupIn(one, beat) ?? ''}` === lane)
    : [lane];
  const options = { grid, length, ...(lane && lane !== EACH && { lanes: new Set(meant) }) };
  const dots = dotsOf(performance, options);
  const odd = outliers(dots).filter(({ note }) => !dropped.has(note));
  const left = dots.filter(({ note }) => !dropped.has(note));
  const shape = shapeFrom(source.name, performance, options, left);
  const curves =
    lane === EACH ? groupCurves(shape, performance, options, left, (one) => groupIn(one, beat)) : null;
  const lengths = [...new Set([1, 2, 4, 8, all])].filter((n) => n <= all).sort((a, b) => a - b);
  const tooLong = length / gridTicks(grid) > MOST_SLOTS;
  const empty = shape.slots.every((slot) => !slot);
  const turn = (note: number) => {
    const next = new Set(dropped);
    if (!next.delete(note)) next.add(note);
    setDropped(next);
  };
  const keep = (name: string) => {
    act(
      beatEdited({
        edit: {
          edit: 'keepTemplate',
          args: {
            template: {
              ...shape,
              ...(curves && { groups: curves }),
              id: nanoid(),
              name: name.slice(0, 80),
            },
          },
        },
      }),
    );
    act(noticed({ text: words.theTemplateNameWasKept(name), subject: 'template' }));
    onDone();
  };
  return (
    <Group title={words.templateFromSource(source.name)}>
      <Figures>
        <Choice<Grid>
          label={words.gridOfTheTemplate}
          short={words.grid}
          value={grid}
          options={[...new Set([found, ...OFFERED])].map((one) => ({
            value: one,
            name: one === found ? words.oneFound(one) : one,
          }))}
          onChange={setGrid}
        />
        <Choice
          label={words.lengthOfTheTemplate}
          short={words.length}
          value={String(bars)}
          options={lengths.map((n) => ({ value: String(n), name: words.nBar(n) }))}
          onChange={(n) => setBars(Number(n))}
        />
        <Choice
          label={words.lanesOfTheTemplate}
          short={words.from}
          value={lane}
          options={[
            { value: '', name: words.allLanes },
            ...(groups.length > 1 ? [{ value: EACH, name: words.eachGroup }] : []),
            ...groups.map((group) => ({ value: `${GROUP} ${group}`, name: GROUP_NAMES[group] })),
            ...lanes.map((one) => ({ value: one, name: laneName(one, beat) })),
          ]}
          onChange={setLane}
        />
      </Figures>
      <Dots dots={dots} slots={shape.slots.length} dropped={dropped} onDrop={turn} />
      <Para quiet>{words.manyOfMany2NotesPress(dots.length - dropped.size, dots.length)}</Para>
      <TemplatePicture shape={shape} />
      <Chips>
        <Chip
          disabled={!odd.length}
          onPress={() => setDropped(new Set([...dropped, ...odd.map(({ note }) => note)]))}
        >
          {odd.length ? words.leaveOutManyFarOff(odd.length) : words.noneFarOff}
        </Chip>
        <Chip disabled={!dropped.size} onPress={() => setDropped(new Set())}>
          {words.takeAllBack}
        </Chip>
        <Chip onPress={onDone}>{words.cancel}</Chip>
      </Chips>
      {tooLong ? (
        <Para>{words.aTemplateHasAtMost(MOST_SLOTS)}</Para>
      ) : empty ? (
        <Para>{words.everyNoteIsLeftOut}</Para>
      ) : (
        <NameField label={words.nameOfTheTemplate} action={words.keepIt} onGive={keep} />
      )}
    </Group>
  );
};
