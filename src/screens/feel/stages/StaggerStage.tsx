import { RANGES, bounds } from '../../../../core/document/ranges';
import { MOVES } from '../../../../core/document/choices';
import type { Lane, Stagger } from '../../../../core/document/schema';
import { CheckBox } from '../../../ui/CheckBox';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Disclosure } from '../../../ui/Disclosure';
import { figure } from '../../../ui/figures';
import { Chips } from '../../../ui/Layout';
import { Range } from '../../../ui/Range';
import { Para } from '../../../ui/Words';
import { words } from '../../../words/feel';
import { editShownFeel } from '../edit';

const set = (stagger: Stagger | null, gesture?: string) =>
  editShownFeel({ edit: 'setStagger', args: { stagger } }, gesture);

const plain = (by: Stagger['by'], unit: Stagger['unit'] = 'ms'): Stagger => ({
  lanes: null,
  by,
  unit,
  random: 0,
  randomFirst: false,
});

/** What a stagger may begin as. */
const READY: { name: string; stagger: Stagger }[] = [
  { name: words.strum, stagger: plain({ count: 6, each: 18 }) },
  { name: words.rake, stagger: { ...plain({ count: 8, each: 28 }), random: 10, randomFirst: true } },
  { name: words.limp, stagger: plain({ list: [0, 18] }, 'percent') },
  { name: words.laggingThree, stagger: plain({ list: [0, 12, 24] }) },
];

const MOST = { ms: 200, percent: 100 } as const;
const unitOf = (stagger: Stagger): string => (stagger.unit === 'ms' ? words.msUnit : words.percentUnit);

const Delay = ({
  stagger,
  label,
  short,
  value,
  onChange,
}: {
  stagger: Stagger;
  label: string;
  short: string;
  value: number;
  onChange: (value: number, gesture: string) => void;
}) => (
  <Range
    label={label}
    short={short}
    value={value}
    least={0}
    most={Math.max(MOST[stagger.unit], value)}
    step={1}
    shown={`${figure(value)} ${unitOf(stagger)}`}
    onChange={onChange}
  />
);

const ByList = ({ stagger, list }: { stagger: Stagger; list: number[] }) => (
  <>
    <Range
      label={words.staggerLength}
      short={words.listLength}
      value={list.length}
      least={1}
      most={MOVES.delays}
      step={1}
      shown={String(list.length)}
      onChange={(length, gesture) =>
        set(
          {
            ...stagger,
            by: { list: Array.from({ length }, (_, at) => list[at] ?? list[list.length - 1] ?? 0) },
          },
          gesture,
        )
      }
    />
    {list.map((delay, at) => (
      <Delay
        key={at}
        stagger={stagger}
        label={words.delayAt(at + 1)}
        short={words.nthDelay(at + 1)}
        value={delay}
        onChange={(value, gesture) =>
          set({ ...stagger, by: { list: list.map((one, i) => (i === at ? value : one)) } }, gesture)
        }
      />
    ))}
  </>
);

const Lanes = ({ stagger, lanes }: { stagger: Stagger; lanes: Lane[] }) => {
  const chosen = stagger.lanes ?? lanes.map(({ id }) => id);
  return (
    <Disclosure
      title={stagger.lanes ? words.forManyOfMany2Lanes(chosen.length, lanes.length) : words.forAllLanes}
    >
      <Chips label={words.staggerLanes}>
        {lanes.map(({ id, name }) => (
          <CheckBox
            key={id}
            label={words.staggerName(name)}
            checked={chosen.includes(id)}
            onChange={(on) => {
              const now = on ? [...chosen, id] : chosen.filter((one) => one !== id);
              set({ ...stagger, lanes: lanes.every((lane) => now.includes(lane.id)) ? null : now });
            }}
          >
            {name}
          </CheckBox>
        ))}
      </Chips>
    </Disclosure>
  );
};

/** Each next stroke later than the one before: by a count, or by a list of delays. */
export const StaggerStage = ({ stagger, lanes }: { stagger: Stagger | undefined; lanes: Lane[] }) => {
  const kind = !stagger ? 'none' : 'list' in stagger.by ? 'list' : 'count';
  const turn = (to: string) => {
    if (to === 'none') return set(null);
    const before = stagger ?? plain({ count: 4, each: 20 });
    const first = 'list' in before.by ? (before.by.list[1] ?? 20) : before.by.each;
    set({
      ...before,
      by: to === 'list' ? { list: [0, first, 2 * first, 3 * first] } : { count: 4, each: first },
    });
  };
  return (
    <>
      <Para quiet>{words.staggerAbout}</Para>
      <Choice
        label={words.staggerKind}
        short={words.delays}
        value={kind}
        options={[
          { value: 'none', name: words.staggerOff },
          { value: 'count', name: words.staggerCount },
          { value: 'list', name: words.staggerList },
        ]}
        onChange={turn}
      />
      <Chips label={words.ready}>
        {READY.map(({ name, stagger: one }) => (
          <Chip key={name} onPress={() => set({ ...one, lanes: stagger?.lanes ?? null })}>
            {name}
          </Chip>
        ))}
      </Chips>
      {stagger ? (
        <>
          <Choice
            label={words.staggerUnit}
            short={words.delays}
            value={stagger.unit}
            options={[
              { value: 'ms', name: words.msUnit },
              { value: 'percent', name: words.percentUnit },
            ]}
            onChange={(unit) => set({ ...stagger, unit })}
          />
          {'list' in stagger.by ? (
            <ByList stagger={stagger} list={stagger.by.list} />
          ) : (
            <>
              <Range
                label={words.staggerHowMany}
                short={words.untilAgain}
                value={stagger.by.count}
                {...bounds({ ...RANGES.staggerCount, most: Math.max(16, stagger.by.count) })}
                step={1}
                shown={String(stagger.by.count)}
                onChange={(count, gesture) =>
                  set(
                    { ...stagger, by: { count, each: 'each' in stagger.by ? stagger.by.each : 20 } },
                    gesture,
                  )
                }
              />
              <Delay
                stagger={stagger}
                label={words.staggerEach}
                short={words.eachLater}
                value={stagger.by.each}
                onChange={(each, gesture) =>
                  set(
                    { ...stagger, by: { count: 'count' in stagger.by ? stagger.by.count : 4, each } },
                    gesture,
                  )
                }
              />
            </>
          )}
          <Delay
            stagger={stagger}
            label={words.staggerRandom}
            short={words.randomPart}
            value={stagger.random}
            onChange={(random, gesture) => set({ ...stagger, random }, gesture)}
          />
          <CheckBox
            checked={stagger.randomFirst}
            onChange={(randomFirst) => set({ ...stagger, randomFirst })}
          >
            {words.randomFirst}
          </CheckBox>
          <Para quiet>{words.randomFirstAbout}</Para>
          <Lanes stagger={stagger} lanes={lanes} />
        </>
      ) : null}
    </>
  );
};
