import { useState } from 'react';
import { nanoid } from '@reduxjs/toolkit';
import { DETOUR_SLOTS } from '../../../../core/document/choices';
import { lanePatternOf } from '../../../../core/document/defaults';
import { GRIDS, type Grid } from '../../../../core/document/grid';
import { bounds, RANGES } from '../../../../core/document/ranges';
import type { Detour, Echoes, Lane, Pattern, Spark } from '../../../../core/document/schema';
import { hasMoves } from '../../../../core/edit/moves';
import { passesThatFit, writtenMoves } from '../../../../core/edit/writeMoves';
import { isAsWritten, KNOWN_ROUTES, knownRoute, randomRoute } from '../../../../core/play/moves/detours';
import { playedTick } from '../../../audio/player';
import { beatEdited } from '../../../state/doc';
import { recallRoute } from '../../../state/recallRoute';
import { recordRoutes } from '../../../state/routeRecorder';
import { noticed, viewChanged } from '../../../state/slices';
import { selectBeat, selectPattern, useApp, useAppStore, useDo } from '../../../state/store';
import { EchoHand } from '../../../strings/EchoHand';
import { RouteHand } from '../../../strings/RouteHand';
import { CheckBox } from '../../../ui/CheckBox';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Disclosure } from '../../../ui/Disclosure';
import { figure } from '../../../ui/figures';
import { Chips, Group } from '../../../ui/Layout';
import { Range } from '../../../ui/Range';
import { Para } from '../../../ui/Words';
import { words } from '../../../words/make';
import { edit } from './edit';
import { newSeed } from './make/settings';

const percent = (value: number): string => `${Math.round(value * 100)} %`;
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
          <Range
            label={words.echoCount}
            short={words.countShort}
            value={echoes.count}
            {...bounds(RANGES.echoes)}
            step={1}
            shown={String(echoes.count)}
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
          <Range
            label={words.slope}
            short={words.slopeShort}
            value={echoes.slope}
            {...bounds(RANGES.echoSlope)}
            step={0.01}
            shown={percent(echoes.slope)}
            onChange={(slope, gesture) => change({ slope }, gesture)}
          />
          <Range
            label={words.interval}
            short={words.intervalShort}
            value={echoes.interval}
            {...bounds(RANGES.interval)}
            step={1}
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
      <Range
        label={words.sparkChance(name)}
        short={words.chanceShort}
        value={spark.chance}
        {...bounds(RANGES.chance)}
        step={0.01}
        shown={percent(spark.chance)}
        onChange={(chance, gesture) => change({ chance }, gesture)}
      />
      <Range
        label={words.sparkFactor(name)}
        short={words.velocityShort}
        value={spark.factor}
        {...bounds(RANGES.sparkFactor)}
        step={0.01}
        shown={percent(spark.factor)}
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
      <Range
        label={words.sparkPitch(name)}
        short={words.pitchShort}
        value={spark.pitch}
        {...bounds(RANGES.interval)}
        step={1}
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

const DETOUR: Detour = { over: 'bar', route: knownRoute('as written', 8), chance: 1, lanes: null };

const DetourOf = () => {
  const act = useDo();
  const detour = useApp((state) => selectPattern(state)!.detour);
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const routes = useApp((state) => selectBeat(state)!.routes) ?? [];
  const routesAt = useApp(({ view }) => view.routesAt);
  const store = useAppStore();
  const now = detour ?? DETOUR;
  const slots = now.route.length;
  const set = (change: Partial<Detour>, gesture?: string) => {
    const next = { ...now, ...change };
    edit('setDetour', { detour: isAsWritten(next.route) && !detour ? null : next }, gesture);
  };
  const chosen = now.lanes ?? lanes.map(({ id }) => id);
  return (
    <Group title={words.detour}>
      <RouteHand route={now.route} onChange={(route, gesture) => set({ route }, gesture)} />
      <Chips label={words.knownRoutes}>
        {KNOWN_ROUTES.filter((name) => name !== 'as written').map((name) => (
          <Chip key={name} onPress={() => set({ route: knownRoute(name, slots) })}>
            {words.routeNames[name]}
          </Chip>
        ))}
        <Chip onPress={() => set({ route: randomRoute(slots, newSeed()) })}>{words.byChance}</Chip>
        {detour ? <Chip onPress={() => edit('setDetour', { detour: null })}>{words.noDetour}</Chip> : null}
      </Chips>
      <Choice
        label={words.over}
        short={words.overShort}
        value={now.over}
        options={[
          { value: 'bar', name: words.theBar },
          { value: 'all', name: words.thePattern },
        ]}
        onChange={(over) => set({ over })}
      />
      <Choice
        label={words.slotsOfRoute}
        short={words.intoShort}
        value={String(slots)}
        options={DETOUR_SLOTS.map((n) => ({ value: String(n), name: words.slotsMany(n) }))}
        onChange={(n) => set({ route: knownRoute('as written', Number(n)) })}
      />
      {detour ? (
        <>
          <Range
            label={words.howLikely}
            short={words.likelyShort}
            value={detour.chance}
            {...bounds(RANGES.chance)}
            step={0.01}
            shown={percent(detour.chance)}
            onChange={(chance, gesture) => set({ chance }, gesture)}
          />
          <Disclosure title={detour.lanes ? words.forSome(chosen.length, lanes.length) : words.forAllLanes}>
            <Chips label={words.detourLanes}>
              {lanes.map(({ id, name }) => (
                <CheckBox
                  key={id}
                  label={words.goesBy(name)}
                  checked={chosen.includes(id)}
                  onChange={(on) => {
                    const next = on ? [...chosen, id] : chosen.filter((one) => one !== id);
                    set({ lanes: lanes.every((lane) => next.includes(lane.id)) ? null : next });
                  }}
                >
                  {name}
                </CheckBox>
              ))}
            </Chips>
          </Disclosure>
          <Chips>
            <Chip
              onPress={() =>
                act(
                  beatEdited({
                    edit: {
                      edit: 'keepRoute',
                      args: { id: nanoid(), name: words.routeNumber(routes.length + 1), route: detour.route },
                    },
                  }),
                )
              }
            >
              {words.keepRoute}
            </Chip>
          </Chips>
        </>
      ) : null}
      {routes.length ? (
        <Chips label={words.keptRoutes}>
          {routes.map(({ id, name }, at) => (
            <Chip key={id} onPress={() => recallRoute(store, at + 1, playedTick())}>
              {words.recallOf(name, at + 1)}
            </Chip>
          ))}
        </Chips>
      ) : null}
      {routes.length ? (
        <Choice
          label={words.routesBegin}
          short={words.routesBeginShort}
          value={routesAt}
          options={[
            { value: 'slot', name: words.atTheNextSlot },
            { value: 'bar', name: words.atTheNextBar },
          ]}
          onChange={(to) => act(viewChanged({ routesAt: to }))}
        />
      ) : null}
      {detour || routes.length ? <Switching /> : null}
    </Group>
  );
};

let endRecording: () => void = () => undefined;

/** The switching of routes while it plays, kept as takes and put into the song. */
const Switching = () => {
  const store = useAppStore();
  const act = useDo();
  const recording = useApp(({ view }) => view.recordingRoutes);
  const last = useApp(({ view }) => view.routesPlayed);
  const mine = useApp((state) => selectPattern(state)!.id === last?.patternId);
  const playing = useApp(({ view }) => view.playing);
  const passes = last ? last.to - last.from : 0;
  return (
    <>
      <Chips>
        <Chip
          pressed={recording}
          onPress={() => {
            if (recording) endRecording();
            else endRecording = recordRoutes(store, playedTick);
          }}
        >
          {words.recordSwitching}
        </Chip>
        {last && mine ? (
          <Chip
            onPress={() => {
              const before = store.getState().doc.beat;
              act(
                beatEdited({
                  edit: { edit: 'passesToSong', args: { ...last, name: words.routesName, id: nanoid() } },
                }),
              );
              const done = store.getState().doc.beat !== before;
              act(noticed({ text: done ? words.routesInSong(passes) : words.noRoomInSong }));
            }}
          >
            {words.putIntoSong(passes)}
          </Chip>
        ) : null}
      </Chips>
      <Para quiet live>
        {recording
          ? playing
            ? words.recordingSwitching
            : words.recordingWaits
          : last && mine
            ? words.passesKept(passes)
            : words.recordSwitchingAbout}
      </Para>
    </>
  );
};

/** Writing in, at once where it sounds the same; else what cannot be the same is named first, with a choice. */
const WriteIn = () => {
  const store = useAppStore();
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const any = useApp((state) => {
    const beat = selectBeat(state)!;
    return beat.lanes.some(({ id }) => hasMoves(beat, selectPattern(state)!, id));
  });
  const [asked, setAsked] = useState<{ told: string; pattern: Pattern } | null>(null);
  const write = (passes?: number) => {
    setAsked(null);
    edit('writeMoves', passes === undefined ? {} : { passes });
  };
  const begin = () => {
    const beat = selectBeat(store.getState())!;
    const { same, told } = writtenMoves(beat, pattern);
    if (!same) return setAsked({ told: told.join(' '), pattern });
    write();
    if (told.length) act(noticed({ text: told.join(' '), subject: 'moves' }));
  };
  // What was asked of a pattern that has changed since is asked no more.
  const open = asked?.pattern === pattern ? asked : null;
  return (
    <>
      <Chips>
        <Chip disabled={!any} onPress={begin}>
          {words.writeMoves}
        </Chip>
      </Chips>
      <Para quiet>{any ? words.writeMovesAbout : words.nothingToWrite}</Para>
      {open ? (
        <Group title={words.notTheSameTitle}>
          <Para live>{open.told.replace(/ What the first pass has was written\.$/, '')}</Para>
          <Chips>
            {passesThatFit(pattern).map((passes) => (
              <Chip key={passes} onPress={() => write(passes)}>
                {words.writePasses(passes, passes * pattern.bars)}
              </Chip>
            ))}
            <Chip onPress={() => write()}>{words.writeFirstPass}</Chip>
            <Chip onPress={() => setAsked(null)}>{words.keepMoves}</Chip>
          </Chips>
        </Group>
      ) : null}
    </>
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
