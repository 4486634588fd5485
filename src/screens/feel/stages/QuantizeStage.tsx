import { Figure } from '../../../ui/Figure';
import { CheckBox } from '../../../ui/CheckBox';
import { Disclosure } from '../../../ui/Disclosure';
import { Para } from '../../../ui/Words';
import { Chips } from '../../../ui/Layout';
import type { PlainFeel } from '../../../../core/document/feelSchema';
import { GRIDS, type Grid } from '../../../../core/document/grid';
import type { Lane } from '../../../../core/document/schema';
import { Choice } from '../../../ui/Choice';
import { editShownFeel } from '../edit';
import { percent } from '../../../ui/figures';
import { gridText } from '../stageText';
import { words } from '../../../words/feel';

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
      title={
        quantize.lanes ? words.forManyOfMany2Lanes(quantize.lanes.length, lanes.length) : words.forAllLanes
      }
    >
      <Chips>
        {lanes.map(({ id, name }) => (
          <CheckBox
            key={id}
            label={words.quantizeName(name)}
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
      label={words.quantizeGrid}
      short={words.grid}
      value={quantize.grid}
      options={OFFERED.map((grid) => ({ value: grid, name: `${grid}, ${gridText(grid)}` }))}
      onChange={(grid) => set({ grid })}
    />
    <Figure
      of="share"
      label={words.quantizeStrength}
      short={words.strength}
      value={quantize.strength}
      onChange={(strength, gesture) => set({ strength }, gesture)}
    />
    <Figure
      of="share"
      label={words.quantizeWindow}
      short={words.window}
      value={quantize.window}
      onChange={(window, gesture) => set({ window }, gesture)}
    />
    <Para quiet>
      {quantize.window < 1
        ? words.onlyHitsWithinWindowOf(percent(quantize.window / 2))
        : words.everyHitIsDrawnTo}
    </Para>
    <CheckBox checked={quantize.flams} onChange={(flams) => set({ flams })}>
      {words.keepFlamsTogether}
    </CheckBox>
    <Lanes quantize={quantize} lanes={lanes} />
  </>
);
