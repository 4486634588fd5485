import type { Feel, LaneFeel } from '../../../../core/beat/feelSchema';
import type { Lane } from '../../../../core/beat/schema';
import { Chip } from '../../../ui/Chip';
import { Range } from '../../../ui/Range';
import { editShownFeel } from '../edit';
import { figure, percent, spreadText } from '../stageText';

type Humanize = Feel['humanize'];

const set = (change: Partial<Pick<Humanize, 'timing' | 'velocity' | 'drift' | 'anew'>>, gesture?: string) =>
  editShownFeel({ edit: 'setHumanize', args: { change } }, gesture);

const take = (seed: number) => editShownFeel({ edit: 'setTake', args: { seed } });

/** Every take's seed is kept: one that was passed over can be had back. */
const Takes = ({ humanize }: { humanize: Humanize }) => {
  const { takes, seed } = humanize;
  const at = takes.indexOf(seed);
  return (
    <div className="chips">
      <Chip label="Previous take" disabled={at <= 0} onPress={() => take(takes[at - 1]!)}>
        ‹
      </Chip>
      <span className="of" aria-live="polite">{`Take ${at + 1} of ${takes.length}`}</span>
      <Chip label="Next take" disabled={at >= takes.length - 1} onPress={() => take(takes[at + 1]!)}>
        ›
      </Chip>
      <Chip onPress={() => take(crypto.getRandomValues(new Uint32Array(1))[0]!)}>Another take</Chip>
    </div>
  );
};

/** How much of the spreads the open lane has. */
const OwnSpread = ({ lane, own }: { lane: Lane; own: LaneFeel }) => {
  const change = (key: 'timing' | 'velocity') => (value: number, gesture: string) =>
    editShownFeel(
      { edit: 'setLanes', args: { laneIds: [lane.id], change: { [key]: value === 1 ? undefined : value } } },
      gesture,
    );
  return (
    <fieldset>
      <legend>{`Of that, ${lane.name} has`}</legend>
      <Range
        label={`Share of the timing spread of ${lane.name}`}
        short="Timing"
        value={own.timing ?? 1}
        least={0}
        most={3}
        step={0.05}
        shown={percent(own.timing ?? 1)}
        onChange={change('timing')}
      />
      <Range
        label={`Share of the velocity spread of ${lane.name}`}
        short="Velocity"
        value={own.velocity ?? 1}
        least={0}
        most={3}
        step={0.05}
        shown={percent(own.velocity ?? 1)}
        onChange={change('velocity')}
      />
      <label className="tick">
        <input
          type="checkbox"
          checked={own.apart ?? false}
          onChange={(event) =>
            editShownFeel({
              edit: 'setLanes',
              args: { laneIds: [lane.id], change: { apart: event.target.checked || undefined } },
            })
          }
        />
        {`${lane.name} drifts by itself, not with the kit`}
      </label>
    </fieldset>
  );
};

/** Small errors, as a player makes them. */
export const HumanizeStage = ({ feel, lane }: { feel: Feel; lane: Lane | undefined }) => {
  const { humanize } = feel;
  return (
    <>
      <Range
        label="Timing spread"
        short="Timing"
        value={humanize.timing}
        least={0}
        most={30}
        step={0.5}
        shown={`± ${figure(humanize.timing)} ms`}
        onChange={(timing, gesture) => set({ timing }, gesture)}
      />
      <p className="quiet" aria-live="polite">
        {spreadText(humanize.timing)}
      </p>
      <Range
        label="Drift share"
        short="Drift"
        value={humanize.drift}
        least={0}
        most={1}
        step={0.01}
        shown={percent(humanize.drift)}
        onChange={(drift, gesture) => set({ drift }, gesture)}
      />
      <p className="quiet">
        How much of it hangs together: real players wander, and the kit wanders with them.
      </p>
      <Range
        label="Velocity spread"
        short="Velocity"
        value={humanize.velocity}
        least={0}
        most={30}
        step={0.5}
        shown={`± ${figure(humanize.velocity)}`}
        onChange={(velocity, gesture) => set({ velocity }, gesture)}
      />
      <Takes humanize={humanize} />
      <label className="tick">
        <input
          type="checkbox"
          checked={humanize.anew}
          onChange={(event) => set({ anew: event.target.checked })}
        />
        New on each pass
      </label>
      {lane ? (
        <OwnSpread key={lane.id} lane={lane} own={feel.lanes[lane.id] ?? {}} />
      ) : (
        <p className="quiet">Press a lane’s name above to give it more or less of this.</p>
      )}
    </>
  );
};
