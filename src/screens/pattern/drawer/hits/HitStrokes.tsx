import { Figure } from '../../../../ui/Figure';
import { Group, Chips } from '../../../../ui/Layout';
import { View } from 'react-native';
import type { Hit, Spacing } from '../../../../../core/document/schema';
import { SPACINGS } from '../../../../../core/document/choices';
import type { Spot } from '../../../../../core/edit/spots';
import { GRACES, graceName, sloped, STROKES, withStrokes } from '../../../../../core/document/rolls';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { PERCENT } from '../../../../ui/figures';
import { Range } from '../../../../ui/Range';
import { edit, onHits } from '../edit';
import { RollHand } from '../../../../strings/RollHand';
import { words } from '../../../../words/drawer';

export interface HitsProps {
  spots: Spot[];
  /** The first of them, and how many there are. */
  hit: Hit;
  count: number;
}

const SPACING_NAMES = SPACINGS.map((value) => ({ value, name: value }));

/** Several strokes in the place of one. */
export const RollPart = ({ spots, hit }: HitsProps) => {
  const { roll } = hit;
  const set = (next: NonNullable<typeof roll>, gesture?: string) =>
    edit('setRolls', { spots, roll: next }, gesture);
  if (!roll)
    return (
      <Group title={words.roll}>
        <Chips>
          <Chip onPress={() => onHits('twoStrokes', spots)}>{words.n2Strokes}</Chip>
          <Chip onPress={() => onHits('threeStrokes', spots)}>{words.n3Strokes}</Chip>
          <Chip onPress={() => onHits('fourRising', spots)}>{words.n4Rising}</Chip>
          <Chip onPress={() => onHits('pressRoll', spots)}>{words.pressRoll}</Chip>
        </Chips>
      </Group>
    );
  return (
    <Group title={words.roll}>
      <RollHand roll={roll} onChange={(levels, gesture) => set({ ...roll, levels }, gesture)} />
      <Range
        label={words.strokesOfTheRoll}
        short={words.strokes}
        value={roll.levels.length}
        {...STROKES}
        step={1}
        shown={String(roll.levels.length)}
        onChange={(strokes, gesture) => set(withStrokes(roll, strokes), gesture)}
      />
      <Figure
        of="curve"
        label={words.curveOfTheRoll}
        short={words.curve}
        value={roll.curve}
        shown={roll.curve === 0 ? words.even : roll.curve > 0 ? words.speedsUp : words.slowsDown}
        onChange={(curve, gesture) => set({ ...roll, curve }, gesture)}
      />
      <Choice<Spacing>
        label={words.spacingOfTheRoll}
        short={words.spacing}
        value={roll.spacing ?? 'even'}
        options={SPACING_NAMES}
        onChange={(spacing) => set({ ...roll, spacing })}
      />
      <Chips>
        {[
          { name: words.rising, slope: 1 },
          { name: words.level, slope: 0 },
          { name: words.falling, slope: -1 },
        ].map(({ name, slope }) => (
          <Chip key={name} onPress={() => set({ ...roll, levels: sloped(roll.levels.length, slope).levels })}>
            {name}
          </Chip>
        ))}
        <Chip onPress={() => onHits('pressRoll', spots)}>{words.pressRoll}</Chip>
        <Chip onPress={() => onHits('noRoll', spots)}>{words.noRoll}</Chip>
      </Chips>
    </Group>
  );
};

/** Strokes before the hit. */
export const Graces = ({ spots, hit }: HitsProps) => {
  const grace = hit.grace ?? [];
  const set = (at: number, change: Partial<(typeof grace)[number]>, gesture?: string) =>
    edit(
      'setGraces',
      { spots, grace: grace.map((one, i) => (i === at ? { ...one, ...change } : one)) },
      gesture,
    );
  return (
    <Group title={grace.length ? words.graceStrokesGrace(graceName(grace.length)) : words.flamDragRuff}>
      <Chips>
        {GRACES.map(({ id, name, grace: preset }) => (
          <Chip key={id} onPress={() => edit('setGraces', { spots, grace: preset })}>
            {name}
          </Chip>
        ))}
        {grace.length ? <Chip onPress={() => onHits('noGrace', spots)}>{words.noGraceStrokes}</Chip> : null}
      </Chips>
      {grace.map((one, at) => (
        <View key={at}>
          <Figure
            of="graceBefore"
            label={words.graceStrokeAtMsBefore(at + 1)}
            short={words.nthBefore(at + 1)}
            value={one.before}
            shown={words.beforeMs(Math.round(one.before))}
            onChange={(before, gesture) => set(at, { before }, gesture)}
          />
          <Range
            label={words.graceStrokeAtLevel(at + 1)}
            short="level"
            value={one.level}
            least={0.05}
            most={1.5}
            step={0.05}
            written={PERCENT}
            shown={`${Math.round(one.level * 100)} %`}
            onChange={(level, gesture) => set(at, { level }, gesture)}
          />
        </View>
      ))}
    </Group>
  );
};
