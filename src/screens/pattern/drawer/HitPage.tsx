import { SoundPage } from './SoundPage';
import { CheckBox } from '../../../ui/CheckBox';
import { Group, Chips, Figures } from '../../../ui/Layout';
import { Para } from '../../../ui/Words';
import { Disclosure } from '../../../ui/Disclosure';
import { useRef } from 'react';
import type { Levels, Lane } from '../../../../core/beat/schema';
import { hitsOn } from '../../../../core/pattern/spots';
import { planLane } from '../../../../core/play/plan';
import { ticksPerMs } from '../../../../core/units';
import { beatEdited } from '../../../state/doc';
import { targetOf } from '../../../state/editing';
import { store } from '../../../state/session';
import { selectBeat, selectPattern, useApp, useDo } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { NumberField } from '../../../ui/NumberField';
import { Range } from '../../../ui/Range';
import { hearHit } from '../../../strings/hearHit';
import { edit } from './edit';
import { Clipboard, Scope, Selecting } from './HitChoice';
import { Graces, Roll, type HitsProps } from './HitStrokes';

/** The value that a gesture began at: what is dragged on one of many changes all by the same amount. */
const useStart = () => {
  const start = useRef<{ gesture: string; value: number } | null>(null);
  return (gesture: string, now: number): number => {
    if (start.current?.gesture !== gesture) start.current = { gesture, value: now };
    return start.current.value;
  };
};

const LEVEL_NAMES: { key: keyof Levels; name: string }[] = [
  { key: 'ghost', name: 'Ghost' },
  { key: 'normal', name: 'Normal' },
  { key: 'accent', name: 'Accent' },
];

const Velocity = ({ spots, hit, count }: HitsProps) => {
  const levels = useApp((state) => selectBeat(state)!.levels);
  const act = useDo();
  const ramp = (from: number, to: number) => edit('rampVelocities', { spots, from, to });
  const startOf = useStart();
  const set = (to: number) => {
    edit('setVelocities', { spots, to });
    hearHit(store, spots[0]!.laneId, to);
  };
  return (
    <Group title="Velocity">
      <Range
        label="Velocity of the hits"
        short="Velocity"
        value={hit.velocity}
        least={1}
        most={127}
        step={1}
        shown={String(hit.velocity)}
        onChange={(to, gesture) => {
          const by = to - startOf(gesture, hit.velocity);
          edit('shiftVelocities', { spots, by }, gesture, true);
          hearHit(store, spots[0]!.laneId, to);
        }}
      />
      {count > 1 ? <Para quiet>{`All ${count} change by the same amount.`}</Para> : null}
      <Chips>
        {LEVEL_NAMES.map(({ key, name }) => (
          <Chip key={key} onPress={() => set(levels[key])}>
            {`${name} ${levels[key]}`}
          </Chip>
        ))}
        <Chip onPress={() => ramp(levels.ghost, levels.accent)}>Ramp up</Chip>
        <Chip onPress={() => ramp(levels.accent, levels.ghost)}>Ramp down</Chip>
        <Chip onPress={() => edit('scaleVelocities', { spots, factor: 0.85 })}>Softer</Chip>
        <Chip onPress={() => edit('scaleVelocities', { spots, factor: 1 / 0.85 })}>Harder</Chip>
        <Chip onPress={() => edit('compressVelocities', { spots, ratio: 0.5 })}>Closer together</Chip>
        <Chip onPress={() => edit('compressVelocities', { spots, ratio: 1.5 })}>Further apart</Chip>
      </Chips>
      <Disclosure title="What ghost, normal and accent are">
        <Figures>
          {LEVEL_NAMES.map(({ key, name }) => (
            <NumberField
              key={key}
              label={`${name} level`}
              value={levels[key]}
              least={1}
              most={127}
              under={name.toLowerCase()}
              width={64}
              onChange={(to) =>
                act(
                  beatEdited({
                    edit: {
                      edit: 'setLevels',
                      args: { levels: { [key]: Math.round(Math.min(127, Math.max(1, to))) } },
                    },
                  }),
                )
              }
            />
          ))}
        </Figures>
      </Disclosure>
    </Group>
  );
};

const Timing = ({ spots, hit }: HitsProps) => {
  const stepMs = useApp((state) => {
    const [beat, pattern] = [selectBeat(state)!, selectPattern(state)!];
    const lane = beat.lanes.find(({ id }) => id === spots[0]!.laneId)!;
    return planLane(beat, pattern, lane).step / ticksPerMs(beat.tempo);
  });
  const ms = hit.nudge * stepMs;
  const startOf = useStart();
  const by = (amount: number) => edit('nudgeByMs', { spots, ms: amount });
  return (
    <Group title="Time">
      <Range
        label="Nudge of the hits in percent of a step"
        short="Nudge"
        value={hit.nudge}
        least={-0.5}
        most={0.5}
        step={0.005}
        shown={`${ms >= 0 ? '+' : '−'}${Math.abs(ms).toFixed(1)} ms`}
        onChange={(to, gesture) =>
          edit('nudgeByMs', { spots, ms: (to - startOf(gesture, hit.nudge)) * stepMs }, gesture, true)
        }
      />
      <Chips>
        <Chip onPress={() => by(-1)}>1 ms earlier</Chip>
        <Chip onPress={() => by(1)}>1 ms later</Chip>
        <Chip onPress={() => edit('setNudges', { spots, to: 0 })}>On the grid</Chip>
      </Chips>
      <Range
        label="Length of the hits in steps"
        short="Length"
        value={hit.length ?? 0}
        least={0}
        most={16}
        step={0.25}
        shown={hit.length === null ? 'rings out' : `${hit.length.toFixed(2)} steps`}
        onChange={(to, gesture) => edit('setLengths', { spots, length: to === 0 ? null : to }, gesture)}
      />
      <Chips>
        <Chip onPress={() => edit('setLengths', { spots, length: null })}>Rings out</Chip>
        <Chip onPress={() => edit('lengthsToNext', { spots })}>Up to the next hit</Chip>
      </Chips>
    </Group>
  );
};

const CYCLES = ['1', '2', '3', '4', '5', '6', '7', '8'].map((value) => ({
  value,
  name: value === '1' ? 'every pass' : `of ${value} passes`,
}));

const Chance = ({ spots, hit }: HitsProps) => {
  const { passes } = hit;
  const set = (of: number, on: number[]) =>
    edit('setPasses', { spots, passes: of < 2 ? null : { of, on: on.length ? on : [of - 1] } });
  const flip = (at: number) => {
    const { of, on } = passes!;
    const left = on.includes(at) ? on.filter((one) => one !== at) : [...on, at].sort((a, b) => a - b);
    set(of, left);
  };
  return (
    <Group title="Chance">
      <Range
        label="Chance of the hits"
        short="Chance"
        value={hit.chance}
        least={0}
        most={1}
        step={0.01}
        shown={`${Math.round(hit.chance * 100)} %`}
        onChange={(chance, gesture) => edit('setChances', { spots, chance }, gesture)}
      />
      <Choice
        label="On which passes the hits sound"
        short="Sounds on"
        value={String(passes?.of ?? 1)}
        options={CYCLES}
        onChange={(of) =>
          set(
            Number(of),
            (passes?.on ?? []).filter((at) => at < Number(of)),
          )
        }
      />
      {passes ? (
        <Chips label="Passes of the cycle">
          {Array.from({ length: passes.of }, (_, at) => (
            <CheckBox
              key={at}
              label={`Pass ${at + 1}`}
              checked={passes.on.includes(at)}
              onChange={() => flip(at)}
            >
              {String(at + 1)}
            </CheckBox>
          ))}
        </Chips>
      ) : null}
    </Group>
  );
};

/**
 * What can be done to hits: those that are selected, the open lane's, or all.
 *
 * @param beside the lane whose sound stands there while no hit is selected, where there is room
 */
export const HitPage = ({ beside }: { beside?: Lane | undefined }) => {
  // The same spots for as long as nothing they follow from changes.
  const view = useApp((state) => state.view);
  const doc = useApp((state) => state.doc);
  const pattern = useApp(selectPattern)!;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const target = targetOf({ ...store.getState(), view, doc });
  const hits = hitsOn(pattern, target.spots);
  const lane = lanes.find(({ id }) => id === (target.spots[0]?.laneId ?? view.openLane));
  const hit = hits[0]?.hit;
  const { spots } = target;
  const all = { spots, hit: hit!, count: hits.length };
  return (
    <>
      <Scope target={target} lane={lane} count={hits.length} />
      <Selecting />
      <Clipboard spots={hit ? spots : []} />
      {hit ? (
        <>
          <Velocity {...all} />
          <Roll {...all} />
          <Graces {...all} />
          <Timing {...all} />
          <Chance {...all} />
        </>
      ) : (
        <>
          <Para quiet>
            {view.openLane
              ? 'Tap a bead in the open string to select its hit: velocity, rolls, flams, timing and chance of it stand here then. Tap it twice to take it off.'
              : 'Press a lane’s name to open its string, then tap a bead: velocity, rolls, flams, timing and chance of that hit stand here then.'}
          </Para>
          {beside ? <SoundPage lane={beside} /> : null}
        </>
      )}
    </>
  );
};
