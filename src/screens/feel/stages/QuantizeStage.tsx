import { CheckBox } from '../../../ui/CheckBox';
import { Disclosure } from '../../../ui/Disclosure';
import { Para } from '../../../ui/Words';
import { Chips } from '../../../ui/Layout';
import type { PlainFeel } from '../../../../core/beat/feelSchema';
import { GRIDS, type Grid } from '../../../../core/beat/grid';
import type { Lane } from '../../../../core/beat/schema';
import { Choice } from '../../../ui/Choice';
import { Range } from '../../../ui/Range';
import { editShownFeel } from '../edit';
import { percent } from '../../../ui/figures';
import { gridText } from '../stageText';

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
    <Disclosure
      title={quantize.lanes ? `For ${quantize.lanes.length} of ${lanes.length} lanes` : 'For all lanes'}
    >
      <Chips>
        {lanes.map(({ id, name }) => (
          <CheckBox
            key={id}
            label={`Quantize ${name}`}
            checked={chosen.includes(id)}
            onChange={(on) => tick(id, on)}
          >
            {name}
          </CheckBox>
        ))}
      </Chips>
    </Disclosure>
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
    <Para quiet>
      {quantize.window < 1
        ? `Only hits within ${percent(quantize.window / 2)} of a step from the grid are drawn to it.`
        : 'Every hit is drawn to it, however far away it is.'}
    </Para>
    <CheckBox checked={quantize.flams} onChange={(flams) => set({ flams })}>
      Keep flams together
    </CheckBox>
    <Lanes quantize={quantize} lanes={lanes} />
  </>
);
