import { Figure } from '../../../ui/Figure';
import { Chips } from '../../../ui/Layout';
import { Words, Para } from '../../../ui/Words';
import { View } from 'react-native';
import { FIELD, styles } from '../styles';
import type { Feel } from '../../../../core/document/feelSchema';
import type { Lane } from '../../../../core/document/schema';
import { RANGES } from '../../../../core/document/ranges';
import { ticksPerMs } from '../../../../core/units';
import { selectBeat, useApp } from '../../../store/store';
import { Chip } from '../../../ui/Chip';
import { NumberField } from '../../../ui/NumberField';
import { Slider } from '../../../ui/Slider';
import { editShownFeel } from '../edit';
import { offsetName, offsetText } from '../stageText';
import { words } from '../../../words/feel';

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

const { least, most } = RANGES.offset;

const Row = ({ lane, offset, shown }: { lane: Lane; offset: number; shown: number }) => (
  <View style={styles.aheadRow}>
    <Words small style={styles.name}>
      {lane.name}
    </Words>
    <View style={styles.slider}>
      <Slider
        label={words.laneAheadOrBehind(lane.name)}
        value={offset}
        least={-shown}
        most={shown}
        step={0.5}
        typed={[least, most]}
        shown={offsetText(offset) + offsetName(offset)}
        onChange={(ms, gesture) => set(lane.id, ms, gesture)}
      />
    </View>
    <NumberField
      label={words.offsetOfLane(lane.name)}
      value={offset}
      least={least}
      most={most}
      under={words.ms}
      step={0.5}
      width={FIELD}
      onChange={(ms, gesture) => set(lane.id, round(ms), gesture)}
    />
  </View>
);

const NO_LEAN = { phrase: 0, fill: 0 };

/** What all lanes come to lean by over the phrase and into a fill. */
const Lean = ({ feel }: { feel: Feel }) => {
  const lean = feel.lean ?? NO_LEAN;
  const parts = [
    { key: 'phrase', label: words.leanOverThePhrase, short: words.phrase },
    { key: 'fill', label: words.leanIntoFills, short: words.fills },
  ] as const;
  return (
    <>
      {parts.map(({ key, label, short }) => (
        <Figure
          of="lean"
          key={key}
          label={label}
          short={short}
          value={lean[key]}
          shown={offsetText(lean[key])}
          onChange={(ms, gesture) =>
            editShownFeel({ edit: 'setLean', args: { ...lean, [key]: ms } }, gesture)
          }
        />
      ))}
      <Para quiet>{words.leanAbout}</Para>
    </>
  );
};

/** How far each lane stands ahead of the beat or behind it, on one chart. */
export const AheadStage = ({ feel, lanes }: { feel: Feel; lanes: Lane[] }) => {
  const tempo = useApp((state) => selectBeat(state)?.tempo ?? 100);
  const mark = SIXTY_FOURTH / ticksPerMs(tempo);
  const shown = lanes.some(({ id }) => Math.abs(feel.lanes[id]?.offset ?? 0) > SHOWN_MS) ? most : SHOWN_MS;
  const moved = lanes.some(({ id }) => feel.lanes[id]?.offset);
  return (
    <>
      <Para quiet>{words.leftIsAheadRightBehind(mark.toFixed(1))}</Para>
      <View style={styles.ahead} role="group" aria-label={words.aheadAndBehind}>
        <View style={styles.marks} aria-hidden>
          <View style={[styles.mark, { left: '50%' }]} />
          {mark < shown
            ? [-1, 1].map((way) => (
                <View
                  key={way}
                  style={[styles.mark, styles.dotted, { left: `${50 + (50 * way * mark) / shown}%` }]}
                />
              ))
            : null}
        </View>
        {lanes.map((lane) => (
          <Row key={lane.id} lane={lane} offset={feel.lanes[lane.id]?.offset ?? 0} shown={shown} />
        ))}
      </View>
      <Chips>
        <Chip
          disabled={!moved}
          onPress={() =>
            editShownFeel({
              edit: 'setLanes',
              args: { laneIds: lanes.map(({ id }) => id), change: { offset: undefined } },
            })
          }
        >
          {words.allOnTime}
        </Chip>
      </Chips>
      <Lean feel={feel} />
    </>
  );
};
