import type { PlainFeel } from '../../../../core/beat/feelSchema';
import { GRIDS, type Grid } from '../../../../core/beat/grid';
import type { Lane } from '../../../../core/beat/schema';
import { Choice } from '../../../ui/Choice';
import { Range } from '../../../ui/Range';
import { editShownFeel } from '../edit';
import { gridText, percent } from '../stageText';

const OFFERED = GRIDS.filter((grid) => !grid.startsWith('1/64'));

type Quantize = PlainFeel['quantize'];

const set = (change: Partial<Quantize>, gesture?: string) =>
  editShownFeel({ edit: 'setQuantize', args: { change } }, gesture);

/** Which lanes it is for: all, or those ticked. */
const Lanes = ({ quantize, lanes }: { quantize: Quantize; lanes: Lane[] }) => {
  const chosen = quantize.lanes ?? lanes.map(({ id }) => id);
  const tick = (id: string, on: boolean) => {
    const now = on ? [...chosen, id] : chosen.filter((one) => one !== id);
    set({ lanes: lanes.every((lane) => now.includes(lane.id)) ? null : now });
  };
  return (
    <details>
      <summary>
        {quantize.lanes ? `For ${quantize.lanes.length} of ${lanes.length} lanes` : 'For all lanes'}
      </summary>
      <div className="ticks">
        {lanes.map(({ id, name }) => (
          <label key={id} className="tick">
            <input
              type="checkbox"
              aria-label={`Quantize ${name}`}
              checked={chosen.includes(id)}
              onChange={(event) => tick(id, event.target.checked)}
            />
            {name}
          </label>
        ))}
      </div>
    </details>
  );
};

/** Draws hits towards a grid. */
export const QuantizeStage = ({ quantize, lanes }: { quantize: Quantize; lanes: Lane[] }) => (
  <>
    <Choice<Grid>
      label="Quantize grid"
      short="Grid"
      value={quantize.grid}
      options={OFFERED.map((grid) => ({ value: grid, name: `${grid}, ${gridText(grid)}` }))}
      onChange={(grid) => set({ grid })}
    />
    <Range
      label="Quantize strength"
      short="Strength"
      value={quantize.strength}
      least={0}
      most={1}
      step={0.01}
      shown={percent(quantize.strength)}
      onChange={(strength, gesture) => set({ strength }, gesture)}
    />
    <Range
      label="Quantize window"
      short="Window"
      value={quantize.window}
      least={0}
      most={1}
      step={0.01}
      shown={percent(quantize.window)}
      onChange={(window, gesture) => set({ window }, gesture)}
    />
    <p className="quiet">
      {quantize.window < 1
        ? `Only hits within ${percent(quantize.window / 2)} of a step from the grid are drawn to it.`
        : 'Every hit is drawn to it, however far away it is.'}
    </p>
    <label className="tick">
      <input
        type="checkbox"
        checked={quantize.flams}
        onChange={(event) => set({ flams: event.target.checked })}
      />
      Keep flams together
    </label>
    <Lanes quantize={quantize} lanes={lanes} />
  </>
);
