import { Figure } from '../../../../ui/Figure';
import { lanePatternOf } from '../../../../../core/document/defaults';
import { GRIDS, type Grid } from '../../../../../core/document/grid';
import { bounds, RANGES } from '../../../../../core/document/ranges';
import type { Echoes, Lane, Spark } from '../../../../../core/document/schema';
import { selectBeat, selectPattern, useApp } from '../../../../store/store';
import { EchoHand } from '../../../../strings/EchoHand';
import { CheckBox } from '../../../../ui/CheckBox';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { figure } from '../../../../ui/figures';
import { Chips, Group } from '../../../../ui/Layout';
import { Range } from '../../../../ui/Range';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { edit } from '../edit';
import { DetourOf } from './DetourOf';
import { WriteIn } from './WriteIn';

const MS = 'ms';
const RATES = [
  ...GRIDS.map((value) => ({ value: value as string, name: value as string })),
  { value: MS, name: words.inMs },
];

const echo = (grid: Grid, count: number, slope: number, more: Partial<Echoes> = {}): Echoes => ({
  count,
  rate: { grid },
  slope,
  interval: 0,
  withoutHit: false,
  ...more,
});
const READY: { name: string; echoes: Echoes }[] = [
  { name: words.ping, echoes: echo('1/8T', 3, 0.7) },
  { name: words.dying, echoes: echo('1/8', 5, 0.72) },
  { name: words.rising, echoes: echo('1/32', 6, 1.15) },
  { name: words.gallop, echoes: echo('1/16', 2, 0.8) },
];

const EchoesOf = ({ lane }: { lane: Lane }) => {
  const echoes = useApp((state) => lanePatternOf(selectPattern(state)!, lane.id).echoes);
  const tempo = useApp((state) => selectBeat(state)!.tempo);
  const set = (next: Echoes | null, gesture?: string) =>
    edit('setEchoes', { laneIds: [lane.id], echoes: next }, gesture);
  const change = (some: Partial<Echoes>, gesture?: string) => set({ ...echoes!, ...some }, gesture);
  return (
    <Group title={words.echoes(lane.name)}>
      <Chips label={words.ready}>
        {READY.map(({ name, echoes: one }) => (
          <Chip key={name} onPress={() => set(one)}>
            {name}
          </Chip>
        ))}
        {echoes ? <Chip onPress={() => set(null)}>{words.noEchoes}</Chip> : null}
      </Chips>
      {echoes ? (
        <>
          <EchoHand echoes={echoes} tempo={tempo} onChange={(some, gesture) => change(some, gesture)} />
          <Figure
            of="echoes"
            label={words.echoCount}
            short={words.countShort}
            value={echoes.count}
            onChange={(count, gesture) => change({ count }, gesture)}
          />
          <Choice
            label={words.echoRate}
            short={words.rateShort}
            value={'grid' in echoes.rate ? echoes.rate.grid : MS}
            options={RATES}
            onChange={(rate) => change({ rate: rate === MS ? { ms: 125 } : { grid: rate as Grid } })}
          />
          {'ms' in echoes.rate ? (
            <Range
              label={words.echoMs}
              short={words.inMs}
              value={echoes.rate.ms}
              {...bounds({ ...RANGES.echoMs, most: 1000 })}
              step={1}
              shown={words.ms(figure(echoes.rate.ms))}
              onChange={(ms, gesture) => change({ rate: { ms } }, gesture)}
            />
          ) : null}
          <Figure
            of="echoSlope"
            label={words.slope}
            short={words.slopeShort}
            value={echoes.slope}
            onChange={(slope, gesture) => change({ slope }, gesture)}
          />
          <Figure
            of="interval"
            label={words.interval}
            short={words.intervalShort}
            value={echoes.interval}
            shown={words.semitones(echoes.interval)}
            onChange={(interval, gesture) => change({ interval }, gesture)}
          />
          <CheckBox checked={echoes.withoutHit} onChange={(withoutHit) => change({ withoutHit })}>
            {words.withoutHit}
          </CheckBox>
        </>
      ) : null}
    </Group>
  );
};

const SPARK: Omit<Spark, 'to'> = { of: 'all', gap: '1/8', chance: 1, factor: 0.8, delay: null, pitch: 0 };
const WHICH = [
  { value: 'all' as const, name: words.sparkAll },
  { value: 'first' as const, name: words.sparkFirst },
  { value: 'last' as const, name: words.sparkLast },
];

interface OneSparkProps {
  spark: Spark;
  others: Lane[];
  onChange: (spark: Spark, gesture?: string) => void;
  onRemove: () => void;
}

const OneSpark = ({ spark, others, onChange, onRemove }: OneSparkProps) => {
  const name = others.find(({ id }) => id === spark.to)?.name ?? '';
  const change = (some: Partial<Spark>, gesture?: string) => onChange({ ...spark, ...some }, gesture);
  const ms = spark.delay && 'ms' in spark.delay ? spark.delay.ms : 0;
  return (
    <>
      <Choice
        label={words.sparkTo}
        short={words.sparkToShort}
        value={spark.to}
        options={others.map(({ id, name: one }) => ({ value: id, name: one }))}
        onChange={(to) => change({ to })}
      />
      <Choice
        label={words.sparkWhich}
        short={words.whichShort}
        value={spark.of}
        options={WHICH}
        onChange={(of) => change({ of })}
      />
      {spark.of === 'all' ? null : (
        <Choice<Grid>
          label={words.sparkGap}
          short={words.gapShort}
          value={spark.gap}
          options={GRIDS.map((value) => ({ value, name: words.nearerThan(value) }))}
          onChange={(gap) => change({ gap })}
        />
      )}
      <Figure
        of="chance"
        label={words.sparkChance(name)}
        short={words.chanceShort}
        value={spark.chance}
        onChange={(chance, gesture) => change({ chance }, gesture)}
      />
      <Figure
        of="sparkFactor"
        label={words.sparkFactor(name)}
        short={words.velocityShort}
        value={spark.factor}
        onChange={(factor, gesture) => change({ factor }, gesture)}
      />
      <Range
        label={words.sparkDelay(name)}
        short={words.delayShort}
        value={ms}
        least={-100}
        most={500}
        step={1}
        shown={words.ms(figure(ms))}
        onChange={(to, gesture) => change({ delay: to ? { ms: to } : null }, gesture)}
      />
      <Figure
        of="interval"
        label={words.sparkPitch(name)}
        short={words.pitchShort}
        value={spark.pitch}
        shown={words.semitones(spark.pitch)}
        onChange={(pitch, gesture) => change({ pitch }, gesture)}
      />
      <Chips>
        <Chip onPress={onRemove}>{words.removeSpark(name)}</Chip>
      </Chips>
    </>
  );
};

const SparksOf = ({ lane }: { lane: Lane }) => {
  const sparks = useApp((state) => lanePatternOf(selectPattern(state)!, lane.id).sparks) ?? [];
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const others = lanes.filter(({ id }) => id !== lane.id);
  const set = (next: Spark[], gesture?: string) =>
    edit('setSparks', { laneId: lane.id, sparks: next.length ? next : null }, gesture);
  return (
    <Group title={words.sparksOf(lane.name)}>
      {sparks.map((spark, at) => (
        <OneSpark
          key={at}
          spark={spark}
          others={others}
          onChange={(next, gesture) =>
            set(
              sparks.map((one, i) => (i === at ? next : one)),
              gesture,
            )
          }
          onRemove={() => set(sparks.filter((_, i) => i !== at))}
        />
      ))}
      {others.length ? (
        <Chips>
          <Chip onPress={() => set([...sparks, { ...SPARK, to: others[0]!.id }])}>{words.addSpark}</Chip>
        </Chips>
      ) : null}
    </Group>
  );
};

/** What changes what is played and not the hits: echoes, sparks, detours. */
export const MovesPage = ({ lane }: { lane: Lane | undefined }) => (
  <>
    <Para quiet>{words.movesAbout}</Para>
    {lane ? (
      <>
        <EchoesOf key={lane.id} lane={lane} />
        <SparksOf lane={lane} />
      </>
    ) : (
      <Para quiet>{words.pressALane}</Para>
    )}
    <DetourOf />
    <WriteIn />
  </>
);
