import type { Feel } from '../../../../core/beat/feelSchema';
import type { Lane } from '../../../../core/beat/schema';
import { Chip } from '../../../ui/Chip';
import { Range } from '../../../ui/Range';
import { Slider } from '../../../ui/Slider';
import { editShownFeel } from '../edit';
import { percent } from '../stageText';

interface Setting {
  key: 'contrast' | 'level';
  name: string;
}

const SETTINGS: Setting[] = [
  { key: 'contrast', name: 'contrast' },
  { key: 'level', name: 'level' },
];

const Row = ({ lane, feel }: { lane: Lane; feel: Feel }) => (
  <div className="pair-row">
    <span>{lane.name}</span>
    {SETTINGS.map(({ key, name }) => {
      const value = feel.lanes[lane.id]?.[key] ?? 1;
      return (
        <span key={key} className="with-figure">
          <Slider
            label={`${lane.name} ${name}`}
            value={value}
            least={0}
            most={2}
            step={0.02}
            shown={percent(value)}
            onChange={(next, gesture) =>
              editShownFeel(
                {
                  edit: 'setLanes',
                  args: { laneIds: [lane.id], change: { [key]: next === 1 ? undefined : next } },
                },
                gesture,
              )
            }
          />
          <small className="figure">{percent(value)}</small>
        </span>
      );
    })}
  </div>
);

/** Velocities stronger or weaker about their mean, lane by lane, and the whole kit up or down. */
export const DynamicsStage = ({ feel, lanes }: { feel: Feel; lanes: Lane[] }) => (
  <>
    <Range
      label="Level of the kit"
      short="Whole kit"
      value={feel.level}
      least={0}
      most={2}
      step={0.01}
      shown={percent(feel.level)}
      onChange={(level, gesture) => editShownFeel({ edit: 'setLevel', args: { level } }, gesture)}
    />
    <div className="pair-row heads" aria-hidden>
      <span />
      <span>Contrast</span>
      <span>Level</span>
    </div>
    {lanes.map((lane) => (
      <Row key={lane.id} lane={lane} feel={feel} />
    ))}
    <p className="quiet">
      Contrast draws a lane’s velocities apart, or towards their mean. No hit is changed.
    </p>
    <Chip
      onPress={() =>
        editShownFeel({
          edit: 'setLanes',
          args: {
            laneIds: lanes.map(({ id }) => id),
            change: { contrast: undefined, level: undefined },
          },
        })
      }
    >
      All as they are
    </Chip>
  </>
);
