import type { Hit, Lane, Levels, Spacing } from '../../../../core/beat/schema';
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
import { viewChanged } from '../../../state/slices';
import { store } from '../../../state/session';
import { selectBeat, selectPattern, useApp, useDo } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { NumberField } from '../../../ui/NumberField';
import { Range } from '../../../ui/Range';
import { copyChosen, duplicateChosen, moveChosen, pasteAt, removeChosen } from '../../../strings/stepKeys';
import { edit } from './edit';
import { RollHand } from './RollHand';

const about = (target: Target, lane: Lane | undefined, count: number): string => {
  const hits = `${count} hit${count === 1 ? '' : 's'}`;
  if (target.kind === 'chosen') return `${hits} chosen`;
  if (target.kind === 'one') return `${lane?.name ?? ''}, step ${target.spots[0]!.step + 1}`;
  return `All ${hits} of ${lane?.name ?? 'the lane'}`;
};

interface HitsProps {
  spots: Spot[];
  hit: Hit;
}

const LEVEL_NAMES: { key: keyof Levels; name: string }[] = [
  { key: 'ghost', name: 'Ghost' },
  { key: 'normal', name: 'Normal' },
  { key: 'accent', name: 'Accent' },
];

const Velocity = ({ spots, hit }: HitsProps) => {
  const levels = useApp((state) => selectBeat(state)!.levels);
  const act = useDo();
  const ramp = (from: number, to: number) => edit('rampVelocities', { spots, from, to });
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
        onChange={(to, gesture) => edit('setVelocities', { spots, to }, gesture)}
      />
      <div className="chips">
        {LEVEL_NAMES.map(({ key, name }) => (
          <Chip key={key} onPress={() => edit('setVelocities', { spots, to: levels[key] })}>
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
  const by = (amount: number) => edit('nudgeHits', { spots, by: amount / stepMs });
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
        onChange={(to, gesture) => edit('setNudges', { spots, to }, gesture)}
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

const Clipboard = ({ spots }: { spots: Spot[] }) => {
  const act = useDo();
  const cursor = useApp((state) => state.view.cursor);
  const clip = useApp((state) => state.view.clip);
  const chosen = useApp((state) => state.view.spots.length > 0);
  return (
    <div className="chips">
      <Chip onPress={() => copyChosen(store, spots)}>Copy</Chip>
      <Chip
        onPress={() => {
          if (copyChosen(store, spots)) removeChosen(store, spots);
        }}
      >
        Cut
      </Chip>
      <Chip disabled={!clip || !cursor} onPress={() => cursor && pasteAt(store, cursor)}>
        {cursor ? `Paste at step ${cursor.step + 1}` : 'Paste'}
      </Chip>
      <Chip onPress={() => duplicateChosen(store, spots)}>Duplicate</Chip>
      <Chip tone="danger" onPress={() => removeChosen(store, spots)}>
        Delete
      </Chip>
      <Chip onPress={() => moveChosen(store, spots, -1, 0)}>Step earlier</Chip>
      <Chip onPress={() => moveChosen(store, spots, 1, 0)}>Step later</Chip>
      <Chip onPress={() => moveChosen(store, spots, 0, -1)}>Lane up</Chip>
      <Chip onPress={() => moveChosen(store, spots, 0, 1)}>Lane down</Chip>
      {chosen ? <Chip onPress={() => act(viewChanged({ spots: [] }))}>Choose nothing</Chip> : null}
    </div>
  );
};

/** What can be done to hits: the chosen ones, one, or all of the open lane. */
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
  if (!hit)
    return (
      <p className="quiet">
        Tap a step to put a hit there. Hold a bead, or drag a box with Shift, to choose hits; what is set here
        then goes for them.
      </p>
    );
  const { spots } = target;
  return (
    <>
      <p className="target" aria-live="polite">
        {about(target, lane, hits.length)}
      </p>
      <Clipboard spots={spots} />
      <Velocity spots={spots} hit={hit} />
      <Roll spots={spots} hit={hit} />
      <Graces spots={spots} hit={hit} />
      <Timing spots={spots} hit={hit} />
      <Chance spots={spots} hit={hit} />
    </>
  );
};
