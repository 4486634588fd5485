import { useRef } from 'react';
import { partOf } from '../../../../core/beat/defaults';
import { gridTicks } from '../../../../core/beat/grid';
import { barTicks } from '../../../../core/beat/meter';
import type { Hit, Lane, Levels, Pattern, Spacing } from '../../../../core/beat/schema';
import { SPACINGS } from '../../../../core/beat/choices';
import { hitsOn, type Spot } from '../../../../core/pattern/spots';
import {
  GRACES,
  graceName,
  PRESS_ROLL,
  sloped,
  STROKES,
  withStrokes,
} from '../../../../core/pattern/strokes';
import { planLane } from '../../../../core/play/plan';
import { ticksPerMs } from '../../../../core/units';
import { beatEdited } from '../../../state/doc';
import { targetOf, type Target } from '../../../state/editing';
import { viewChanged, type ViewState } from '../../../state/slices';
import { store } from '../../../state/session';
import { selectBeat, selectPattern, useApp, useDo } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { NumberField } from '../../../ui/NumberField';
import { Range } from '../../../ui/Range';
import {
  copyChosen,
  duplicateChosen,
  moveChosen,
  pasteAt,
  removeChosen,
  selectAll,
  selectBar,
  selectLane,
} from '../../../strings/chosen';
import { hearHit } from '../../../strings/hearHit';
import { edit } from './edit';
import { RollHand } from './RollHand';

const hitsText = (count: number): string => `${count} hit${count === 1 ? '' : 's'}`;

/** What the controls are for, in words. */
const about = (target: Target, lane: Lane | undefined, count: number): string => {
  if (target.kind === 'all') return `All ${hitsText(count)} of all lanes`;
  if (target.kind === 'lane') return `All ${hitsText(count)} of ${lane?.name ?? 'the lane'}`;
  if (target.kind === 'one' && count === 1) return `${lane?.name ?? ''}, step ${target.spots[0]!.step + 1}`;
  return `${hitsText(count)} selected`;
};

/** The value that a gesture began at: what is dragged on one of many changes all by the same amount. */
const useStart = () => {
  const start = useRef<{ gesture: string; value: number } | null>(null);
  return (gesture: string, now: number): number => {
    if (start.current?.gesture !== gesture) start.current = { gesture, value: now };
    return start.current.value;
  };
};

interface HitsProps {
  spots: Spot[];
  /** The first of them, and how many there are. */
  hit: Hit;
  count: number;
}

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
    <fieldset>
      <legend>Velocity</legend>
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
      {count > 1 ? <p className="quiet">{`All ${count} change by the same amount.`}</p> : null}
      <div className="chips">
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
      </div>
      <details>
        <summary>What ghost, normal and accent are</summary>
        <div className="figures">
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
        </div>
      </details>
    </fieldset>
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
    <fieldset>
      <legend>Time</legend>
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
      <div className="chips">
        <Chip onPress={() => by(-1)}>1 ms earlier</Chip>
        <Chip onPress={() => by(1)}>1 ms later</Chip>
        <Chip onPress={() => edit('setNudges', { spots, to: 0 })}>On the grid</Chip>
      </div>
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
      <div className="chips">
        <Chip onPress={() => edit('setLengths', { spots, length: null })}>Rings out</Chip>
        <Chip onPress={() => edit('lengthsToNext', { spots })}>Up to the next hit</Chip>
      </div>
    </fieldset>
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
    <fieldset>
      <legend>Chance</legend>
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
        <div className="chips" role="group" aria-label="Passes of the cycle">
          {Array.from({ length: passes.of }, (_, at) => (
            <label key={at} className="tick">
              <input
                type="checkbox"
                checked={passes.on.includes(at)}
                aria-label={`Pass ${at + 1}`}
                onChange={() => flip(at)}
              />
              {at + 1}
            </label>
          ))}
        </div>
      ) : null}
    </fieldset>
  );
};

const SPACING_NAMES = SPACINGS.map((value) => ({ value, name: value }));

const Roll = ({ spots, hit }: HitsProps) => {
  const { roll } = hit;
  const set = (next: typeof roll | null, gesture?: string) =>
    edit('setRolls', { spots, roll: next ?? null }, gesture);
  if (!roll)
    return (
      <fieldset>
        <legend>Roll</legend>
        <div className="chips">
          <Chip onPress={() => set(sloped(2, 0))}>2 strokes</Chip>
          <Chip onPress={() => set(sloped(3, 0))}>3 strokes</Chip>
          <Chip onPress={() => set(sloped(4, 0.6))}>4 rising</Chip>
          <Chip onPress={() => set(PRESS_ROLL)}>Press roll</Chip>
        </div>
      </fieldset>
    );
  return (
    <fieldset>
      <legend>Roll</legend>
      <RollHand roll={roll} onChange={(levels, gesture) => set({ ...roll, levels }, gesture)} />
      <Range
        label="Strokes of the roll"
        short="Strokes"
        value={roll.levels.length}
        {...STROKES}
        step={1}
        shown={String(roll.levels.length)}
        onChange={(strokes, gesture) => set(withStrokes(roll, strokes), gesture)}
      />
      <Range
        label="Curve of the roll"
        short="Curve"
        value={roll.curve}
        least={-1}
        most={1}
        step={0.05}
        shown={roll.curve === 0 ? 'even' : roll.curve > 0 ? 'speeds up' : 'slows down'}
        onChange={(curve, gesture) => set({ ...roll, curve }, gesture)}
      />
      <Choice<Spacing>
        label="Spacing of the roll"
        short="Spacing"
        value={roll.spacing ?? 'even'}
        options={SPACING_NAMES}
        onChange={(spacing) => set({ ...roll, spacing })}
      />
      <div className="chips">
        {[
          { name: 'Rising', slope: 1 },
          { name: 'Level', slope: 0 },
          { name: 'Falling', slope: -1 },
        ].map(({ name, slope }) => (
          <Chip key={name} onPress={() => set({ ...roll, levels: sloped(roll.levels.length, slope).levels })}>
            {name}
          </Chip>
        ))}
        <Chip onPress={() => set(PRESS_ROLL)}>Press roll</Chip>
        <Chip onPress={() => set(null)}>No roll</Chip>
      </div>
    </fieldset>
  );
};

const Graces = ({ spots, hit }: HitsProps) => {
  const grace = hit.grace ?? [];
  const set = (at: number, change: Partial<(typeof grace)[number]>, gesture?: string) =>
    edit(
      'setGraces',
      { spots, grace: grace.map((one, i) => (i === at ? { ...one, ...change } : one)) },
      gesture,
    );
  return (
    <fieldset>
      <legend>{grace.length ? `Grace strokes: ${graceName(grace.length)}` : 'Flam, drag, ruff'}</legend>
      <div className="chips">
        {GRACES.map(({ id, name, grace: preset }) => (
          <Chip key={id} onPress={() => edit('setGraces', { spots, grace: preset })}>
            {name}
          </Chip>
        ))}
        {grace.length ? (
          <Chip onPress={() => edit('setGraces', { spots, grace: null })}>No grace strokes</Chip>
        ) : null}
      </div>
      {grace.map((one, at) => (
        <div key={at}>
          <Range
            label={`Grace stroke ${at + 1}, ms before`}
            short={`${at + 1}. before`}
            value={one.before}
            least={1}
            most={120}
            step={1}
            shown={`${Math.round(one.before)} ms`}
            onChange={(before, gesture) => set(at, { before }, gesture)}
          />
          <Range
            label={`Grace stroke ${at + 1}, level`}
            short="level"
            value={one.level}
            least={0.05}
            most={1.5}
            step={0.05}
            shown={`${Math.round(one.level * 100)} %`}
            onChange={(level, gesture) => set(at, { level }, gesture)}
          />
        </div>
      ))}
    </fieldset>
  );
};

/** Where the line stands, counted as people do. */
const placeText = (pattern: Pattern, { laneId, step }: Spot): string => {
  const g = gridTicks(partOf(pattern, laneId).grid);
  const bar = barTicks(pattern.meter);
  const tick = step * g;
  const inBar = (tick % bar) / g;
  return `bar ${Math.floor(tick / bar + 1e-9) + 1}, step ${Math.round(inBar * 100) / 100 + 1}`;
};

/** Copying and pasting: the line on the strings shows where. */
const Clipboard = ({ spots }: { spots: Spot[] }) => {
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const { clip, openLane, pasteAt: line, cursor } = useApp((state) => state.view);
  const known = (at: Spot | null) => (at && lanes.some(({ id }) => id === at.laneId) ? at : null);
  const at = known(line) ?? known(cursor) ?? { laneId: openLane ?? lanes[0]!.id, step: 0 };
  const bar = barTicks(pattern.meter) / gridTicks(partOf(pattern, at.laneId).grid);
  const move = (by: number) =>
    act(viewChanged({ pasteAt: { laneId: at.laneId, step: Math.max(0, at.step + by) } }));
  return (
    <>
      {spots.length ? (
        <div className="chips">
          <Chip onPress={() => copyChosen(store, spots)}>Copy</Chip>
          <Chip
            onPress={() => {
              if (copyChosen(store, spots)) removeChosen(store, spots);
            }}
          >
            Cut
          </Chip>
          <Chip onPress={() => duplicateChosen(store, spots)}>Duplicate</Chip>
          <Chip tone="danger" onPress={() => removeChosen(store, spots)}>
            Delete
          </Chip>
          <Chip onPress={() => moveChosen(store, spots, -1, 0)}>Step earlier</Chip>
          <Chip onPress={() => moveChosen(store, spots, 1, 0)}>Step later</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, -1)}>Lane up</Chip>
          <Chip onPress={() => moveChosen(store, spots, 0, 1)}>Lane down</Chip>
        </div>
      ) : null}
      {clip ? (
        <div className="chips" role="group" aria-label="Paste">
          <Chip onPress={() => pasteAt(store, at)}>{`Paste at ${placeText(pattern, at)}`}</Chip>
          <Chip label="Line a step earlier" onPress={() => move(-1)}>
            ‹ Step
          </Chip>
          <Chip label="Line a step later" onPress={() => move(1)}>
            Step ›
          </Chip>
          <Chip label="Line a bar earlier" onPress={() => move(-bar)}>
            ‹ Bar
          </Chip>
          <Chip label="Line a bar later" onPress={() => move(bar)}>
            Bar ›
          </Chip>
        </div>
      ) : null}
    </>
  );
};

/** The one place that says what the controls are for, and where that is changed. */
const Scope = ({ target, lane, count }: { target: Target; lane: Lane | undefined; count: number }) => {
  const act = useDo();
  const { scope, openLane } = useApp((state) => state.view);
  const pick = (to: ViewState['scope']) => act(viewChanged({ scope: to }));
  return (
    <>
      <div className="chips" role="group" aria-label="These controls are for">
        <Chip pressed={scope === 'hits'} onPress={() => pick('hits')}>
          Selected hits
        </Chip>
        <Chip pressed={scope === 'lane'} disabled={!openLane} onPress={() => pick('lane')}>
          Whole lane
        </Chip>
        <Chip pressed={scope === 'all'} onPress={() => pick('all')}>
          All lanes
        </Chip>
      </div>
      <p className="target" aria-live="polite">
        {count ? about(target, lane, count) : 'No hit selected'}
      </p>
    </>
  );
};

/** Selecting without drawing a box, and how the hand works. */
const Selecting = () => {
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const { spots, openLane, cursor, eraser, hearEdits } = useApp((state) => state.view);
  const g = cursor ? gridTicks(partOf(pattern, cursor.laneId).grid) : 0;
  const bar = cursor ? Math.floor((cursor.step * g) / barTicks(pattern.meter) + 1e-9) : 0;
  return (
    <div className="chips" role="group" aria-label="Select">
      <Chip label={`Select bar ${bar + 1}`} onPress={() => selectBar(store, bar)}>
        {`Bar ${bar + 1}`}
      </Chip>
      <Chip
        label="Select the lane"
        disabled={!openLane}
        onPress={() => openLane && selectLane(store, openLane)}
      >
        Lane
      </Chip>
      <Chip label="Select the pattern" onPress={() => selectAll(store)}>
        Pattern
      </Chip>
      {spots.length ? (
        <Chip onPress={() => act(viewChanged({ spots: [], cursor: null, scope: 'hits' }))}>Deselect</Chip>
      ) : null}
      <Chip pressed={eraser} onPress={() => act(viewChanged({ eraser: !eraser }))}>
        Eraser
      </Chip>
      <Chip pressed={hearEdits} onPress={() => act(viewChanged({ hearEdits: !hearEdits }))}>
        Hear edits
      </Chip>
    </div>
  );
};

/** What can be done to hits: those that are selected, the open lane's, or all. */
export const HitPage = () => {
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
        <p className="quiet">
          {view.openLane
            ? 'Tap a bead in the open string to select its hit: velocity, rolls, flams, timing and chance of it stand here then. Tap it twice to take it off.'
            : 'Press a lane’s name to open its string, then tap a bead: velocity, rolls, flams, timing and chance of that hit stand here then.'}
        </p>
      )}
    </>
  );
};
