import { Figure } from '../../../../ui/Figure';
import { tunedAs, tuningAround } from '../../../../../core/document/defaults';
import { noteName } from '../../../../../core/document/noteName';
import { bounds, RANGES } from '../../../../../core/document/ranges';
import type { Lane } from '../../../../../core/document/schema';
import { scaleNames, scaleOf } from '../../../../../core/make/scales';
import { nameIn, notesOfLane, ROOTS } from '../../../../../core/make/tunedLane';
import { laneChanged } from '../../../../store/doc';
import { useApp, useDo } from '../../../../store/store';

import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Chips, Figures, Group } from '../../../../ui/Layout';
import { NumberField } from '../../../../ui/NumberField';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/tuned';
import { useHeightIs } from '../heights';

const SCALES = scaleNames();

/** Root, scale and range of a lane that plays pitches. */
export const TuningGroup = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  const names = useApp(({ look }) => look.noteNames);
  const [height, setHeight] = useHeightIs();
  const { tuning } = lane;
  const set = (change: Partial<Omit<Lane, 'id'>>, gesture?: string) =>
    act(laneChanged({ laneId: lane.id, change, ...(gesture && { gesture }) }));
  const tune = (change: Partial<NonNullable<Lane['tuning']>>, gesture?: string) =>
    tuning && set({ tuning: { ...tuning, ...change } }, gesture);
  const scales = tuning && !SCALES.includes(tuning.scale) ? [tuning.scale, ...SCALES] : SCALES;
  const known = tuning ? scaleOf(`${tuning.root} ${tuning.scale}`) : null;
  return (
    <Group title={words.tuned}>
      <Chips>
        <Chip
          pressed={tuning !== undefined}
          onPress={() => set({ tuning: tuning ? undefined : tuningAround(lane.note) })}
        >
          {words.playsPitches}
        </Chip>
        {tuning ? (
          <Chip
            pressed={height === 'pitch'}
            onPress={() => setHeight(height === 'pitch' ? 'velocity' : 'pitch')}
          >
            {words.heightIsPitch}
          </Chip>
        ) : null}
      </Chips>
      {tuning ? (
        <>
          <Choice
            label={words.rootOf(lane.name)}
            short={words.root}
            value={tuning.root}
            options={ROOTS.map((root) => ({
              value: root as string,
              name: root.replace('b', '♭').replace('#', '♯'),
            }))}
            onChange={(root) => tune({ root })}
          />
          <Choice
            label={words.scaleOf(lane.name)}
            short={words.scale}
            value={tuning.scale}
            options={scales.map((scale) => ({ value: scale, name: scale }))}
            onChange={(scale) => tune({ scale })}
          />
          <Figures>
            <NumberField
              label={words.lowestOf(lane.name)}
              value={tuning.low}
              {...bounds(RANGES.note)}
              under={noteName(tuning.low, names) || words.lowest}
              width={72}
              onChange={(low, gesture) =>
                tune({ low: Math.round(low), high: Math.max(tuning.high, Math.round(low)) }, gesture)
              }
            />
            <NumberField
              label={words.highestOf(lane.name)}
              value={tuning.high}
              {...bounds(RANGES.note)}
              under={noteName(tuning.high, names) || words.highest}
              width={72}
              onChange={(high, gesture) =>
                tune({ high: Math.round(high), low: Math.min(tuning.low, Math.round(high)) }, gesture)
              }
            />
          </Figures>
          <Figure
            of="slide"
            label={words.slideOf(lane.name)}
            short={words.slide}
            value={lane.slide ?? 0}
            shown={lane.slide ? words.ms(lane.slide) : words.off}
            onChange={(slide, gesture) => set({ slide: slide || undefined }, gesture)}
          />
          <Para quiet live>
            {known?.ok === false
              ? known.error
              : words.itsNotes(
                  notesOfLane(lane)
                    .map((note) => nameIn(lane, note, names))
                    .join(' '),
                )}
          </Para>
        </>
      ) : (
        <Para quiet>{words.aLaneMayPlay}</Para>
      )}
    </Group>
  );
};

/** What else changes with a lane's instrument: one that plays pitches brings a scale and a channel. */
export const withInstrument = (
  lane: Lane,
  id: Lane['instrument'],
  note: number,
): Partial<Omit<Lane, 'id'>> => {
  const tuned = tunedAs(id);
  return {
    instrument: id,
    note,
    ...(tuned.tuning && !lane.tuning && { tuning: tuned.tuning }),
    ...(tuned.tuning && lane.channel === 10 && { channel: tuned.channel }),
  };
};
