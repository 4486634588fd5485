import type { CSSProperties } from 'react';
import type { Feel } from '../../../../core/beat/feelSchema';
import { INSTRUMENTS } from '../../../../core/beat/instruments';
import type { Lane } from '../../../../core/beat/schema';
import { FEEL_RANGES } from '../../../../core/feel/edits';
import { ticksPerMs } from '../../../../core/units';
import { selectBeat, useApp } from '../../../state/store';
import { Chip } from '../../../ui/Chip';
import { NumberField } from '../../../ui/NumberField';
import { Slider } from '../../../ui/Slider';
import { editShownFeel } from '../edit';
import { offsetText } from '../stageText';

/** What the chart shows on either side; it shows all of the range where an offset that was typed is larger. */
const SHOWN_MS = 50;
/** A sixty-fourth note. */
const SIXTY_FOURTH = 60;

const set = (laneId: string, offset: number, gesture?: string) =>
  editShownFeel(
    { edit: 'setLanes', args: { laneIds: [laneId], change: { offset: offset || undefined } } },
    gesture,
  );

const round = (ms: number): number => Math.round(ms * 10) / 10;

const { least, most } = FEEL_RANGES.offset;

const Row = ({ lane, offset, shown }: { lane: Lane; offset: number; shown: number }) => (
  <div
    className="ahead-row"
    style={{ '--dye': `var(--${lane.pigment ?? INSTRUMENTS[lane.instrument].pigment})` } as CSSProperties}
  >
    <span>{lane.name}</span>
    <Slider
      label={`${lane.name} ahead or behind`}
      value={offset}
      least={-shown}
      most={shown}
      step={0.5}
      shown={offsetText(offset)}
      onChange={(ms, gesture) => set(lane.id, ms, gesture)}
    />
    <NumberField
      label={`Offset of ${lane.name}`}
      value={offset}
      least={least}
      most={most}
      under="ms"
      step={0.5}
      width={64}
      onChange={(ms, gesture) => set(lane.id, round(ms), gesture)}
    />
  </div>
);

/** How far each lane stands ahead of the beat or behind it, on one chart. */
export const AheadStage = ({ feel, lanes }: { feel: Feel; lanes: Lane[] }) => {
  const tempo = useApp((state) => selectBeat(state)?.tempo ?? 100);
  const mark = SIXTY_FOURTH / ticksPerMs(tempo);
  const shown = lanes.some(({ id }) => Math.abs(feel.lanes[id]?.offset ?? 0) > SHOWN_MS) ? most : SHOWN_MS;
  const moved = lanes.some(({ id }) => feel.lanes[id]?.offset);
  return (
    <>
      <p className="quiet">
        {`Left is ahead, right behind. The dotted lines stand a sixty-fourth away: ${mark.toFixed(1)} ms at this tempo.`}
      </p>
      <div
        className="ahead"
        style={{ '--mark': Math.min(1.2, mark / shown) } as CSSProperties}
        role="group"
        aria-label="Ahead and behind"
      >
        <i className="zero" aria-hidden />
        {mark < shown ? (
          <>
            <i className="mark before" aria-hidden />
            <i className="mark after" aria-hidden />
          </>
        ) : null}
        {lanes.map((lane) => (
          <Row key={lane.id} lane={lane} offset={feel.lanes[lane.id]?.offset ?? 0} shown={shown} />
        ))}
      </div>
      <Chip
        disabled={!moved}
        onPress={() =>
          editShownFeel({
            edit: 'setLanes',
            args: { laneIds: lanes.map(({ id }) => id), change: { offset: undefined } },
          })
        }
      >
        All on time
      </Chip>
    </>
  );
};
