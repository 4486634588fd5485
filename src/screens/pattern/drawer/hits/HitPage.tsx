import { Figure } from '../../../../ui/Figure';
import { lanePatternOf } from '../../../../../core/document/defaults';
import type { Hit } from '../../../../../core/document/schema';
import type { Spot } from '../../../../../core/edit/spots';
import { chordOf, notesOfLane, noteText, pitchBy } from '../../../../../core/make/tunedLane';
import { words as tuned } from '../../../../words/tuned';
import { bounds, RANGES } from '../../../../../core/document/ranges';
import { SoundPage } from '../sound/SoundPage';
import { CheckBox } from '../../../../ui/CheckBox';
import { Group, Chips, Figures } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { Disclosure } from '../../../../ui/Disclosure';
import { useRef } from 'react';
import type { Levels, Lane } from '../../../../../core/document/schema';
import { hitsOn } from '../../../../../core/edit/spots';
import { planLane } from '../../../../../core/play/plan';
import { ticksPerMs } from '../../../../../core/units';
import { beatEdited } from '../../../../store/doc';
import { selectTarget } from '../../../../store/editing';
import { selectBeat, selectPattern, useApp, useDo, useAppStore } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { NumberField } from '../../../../ui/NumberField';
import { times } from '../../../../ui/figures';
import { Range } from '../../../../ui/Range';
import { hearHit } from '../../../../strings/hearHit';
import { edit, onHits } from '../edit';
import { Clipboard, ScopeChoice, Selecting } from './HitChoice';
import { Graces, RollPart, type HitsProps } from './HitStrokes';
import type { HandRule } from '../../../../../core/document/choices';
import { handsToggled } from '../../../../store/look';
import { words } from '../../../../words/drawer';
import { words as handWords } from '../../../../words/hands';
import { words as made } from '../../../../words/make';

/** The value that a gesture began at: what is dragged on one of many changes all by the same amount. */
const useStart = () => {
  const start = useRef<{ gesture: string; value: number } | null>(null);
  return (gesture: string, now: number): number => {
    if (start.current?.gesture !== gesture) start.current = { gesture, value: now };
    return start.current.value;
  };
};

const LEVEL_NAMES: { key: keyof Levels; name: string }[] = [
  { key: 'ghost', name: words.ghost },
  { key: 'normal', name: words.normal },
  { key: 'accent', name: words.accent },
];

const Velocity = ({ spots, hit, count }: HitsProps) => {
  const store = useAppStore();
  const levels = useApp((state) => selectBeat(state)!.levels);
  const act = useDo();
  const ramp = (from: number, to: number) => edit('rampVelocities', { spots, from, to });
  const startOf = useStart();
  const set = (to: number) => {
    edit('setVelocities', { spots, to });
    hearHit(store, spots[0]!.laneId, to);
  };
  return (
    <Group title={words.velocity}>
      <Figure
        of="velocity"
        label={words.velocityOfTheHits}
        short={words.velocity}
        value={hit.velocity}
        onChange={(to, gesture) => {
          const by = to - startOf(gesture, hit.velocity);
          edit('shiftVelocities', { spots, by }, gesture, true);
          hearHit(store, spots[0]!.laneId, to);
        }}
      />
      {count > 1 ? <Para quiet>{words.allCountChangeByThe(count)}</Para> : null}
      <Chips>
        {LEVEL_NAMES.map(({ key, name }) => (
          <Chip key={key} onPress={() => set(levels[key])}>
            {`${name} ${levels[key]}`}
          </Chip>
        ))}
        <Chip onPress={() => ramp(levels.ghost, levels.accent)}>{words.rampUp}</Chip>
        <Chip onPress={() => ramp(levels.accent, levels.ghost)}>{words.rampDown}</Chip>
        <Chip onPress={() => onHits('softer', spots)}>{words.softer}</Chip>
        <Chip onPress={() => onHits('harder', spots)}>{words.harder}</Chip>
        <Chip onPress={() => onHits('closerTogether', spots)}>{words.closerTogether}</Chip>
        <Chip onPress={() => onHits('furtherApart', spots)}>{words.furtherApart}</Chip>
      </Chips>
      <Disclosure title={words.whatGhostNormalAndAccent}>
        <Figures>
          {LEVEL_NAMES.map(({ key, name }) => (
            <NumberField
              key={key}
              label={words.nameLevel(name)}
              value={levels[key]}
              {...bounds(RANGES.velocity)}
              under={name.toLowerCase()}
              width={64}
              onChange={(to) =>
                act(
                  beatEdited({
                    edit: {
                      edit: 'setLevels',
                      args: { levels: { [key]: Math.round(Math.min(127, Math.max(1, to))) } },
                    },
                  }),
                )
              }
            />
          ))}
        </Figures>
      </Disclosure>
    </Group>
  );
};

const Timing = ({ spots, hit }: HitsProps) => {
  const stepMs = useApp((state) => {
    const [beat, pattern] = [selectBeat(state)!, selectPattern(state)!];
    const lane = beat.lanes.find(({ id }) => id === spots[0]!.laneId)!;
    return planLane(beat, pattern, lane).step / ticksPerMs(beat.tempo);
  });
  const ms = hit.nudge * stepMs;
  const startOf = useStart();
  return (
    <Group title={words.time}>
      <Figure
        of="nudge"
        label={words.nudgeOfTheHitsIn}
        short={words.nudge}
        value={hit.nudge}
        step={0.005}
        written={times(stepMs, 0.1)}
        shown={words.signedMs(ms >= 0 ? '+' : '−', Math.abs(ms).toFixed(1))}
        onChange={(to, gesture) =>
          edit('nudgeByMs', { spots, ms: (to - startOf(gesture, hit.nudge)) * stepMs }, gesture, true)
        }
      />
      <Chips>
        <Chip onPress={() => onHits('msEarlier', spots)}>{words.n1MsEarlier}</Chip>
        <Chip onPress={() => onHits('msLater', spots)}>{words.n1MsLater}</Chip>
        <Chip onPress={() => onHits('onTheGrid', spots)}>{words.onTheGrid}</Chip>
      </Chips>
      <Range
        label={words.lengthOfTheHitsIn}
        short={words.length}
        value={hit.length ?? 0}
        least={0}
        most={16}
        step={0.25}
        shown={hit.length === null ? words.ringsOut : words.manySteps(hit.length.toFixed(2))}
        onChange={(to, gesture) => edit('setLengths', { spots, length: to === 0 ? null : to }, gesture)}
      />
      <Chips>
        <Chip onPress={() => onHits('ringsOut', spots)}>{words.ringsOut2}</Chip>
        <Chip onPress={() => onHits('upToTheNext', spots)}>{words.upToTheNextHit}</Chip>
      </Chips>
    </Group>
  );
};

const RULES: { rule: HandRule; name: string }[] = [
  { rule: 'alternate', name: handWords.alternate },
  { rule: 'lead', name: handWords.leadingHand },
  { rule: 'rudiment', name: handWords.asRudiments },
];

/** Which hand plays hits: set for each, by a rule, or found by the least effort. */
const Hands = ({ spots, hit }: HitsProps) => {
  const showHands = useApp(({ look }) => look.showHands);
  const act = useDo();
  return (
    <Group title={handWords.hand}>
      <Chips label={handWords.handOfHits}>
        {(['R', 'L'] as const).map((hand) => (
          <Chip
            key={hand}
            pressed={hit.hand === hand}
            onPress={() => edit('setHands', { spots, hand: hit.hand === hand ? null : hand })}
          >
            {handWords.names[hand]}
          </Chip>
        ))}
        <Chip pressed={!hit.hand} onPress={() => edit('setHands', { spots, hand: null })}>
          {handWords.found}
        </Chip>
      </Chips>
      <Chips label={handWords.byRule}>
        {RULES.map(({ rule, name }) => (
          <Chip key={rule} onPress={() => edit('stickBy', { spots, rule })}>
            {name}
          </Chip>
        ))}
      </Chips>
      <CheckBox checked={showHands} onChange={() => act(handsToggled())}>
        {handWords.show}
      </CheckBox>
    </Group>
  );
};

/** Which of its lane's notes hits play, and what chord they are together. */
const LaneNotes = ({ lane, spots, hit }: { lane: Lane; spots: Spot[]; hit: Hit }) => {
  const names = useApp(({ look }) => look.noteNames);
  const pattern = useApp(selectPattern)!;
  const store = useAppStore();
  const pitch = hit.pitch ?? 0;
  const now = lane.note + pitch;
  const notes = notesOfLane(lane);
  const to = (next: number) => {
    edit('shiftPitches', { spots, by: next - pitch });
    hearHit(store, lane.id, hit.velocity, next);
  };
  const together = lanePatternOf(pattern, lane.id).hits.filter(({ step }) => step === hit.step);
  const chord = chordOf(together.map((one) => lane.note + (one.pitch ?? 0)));
  return (
    <>
      <Choice
        label={tuned.noteOfHits}
        short={tuned.note}
        value={String(now)}
        options={[...new Set([...notes, now])]
          .sort((a, b) => b - a)
          .map((note) => ({ value: String(note), name: noteText(lane, note, names) }))}
        onChange={(note) => to(Number(note) - lane.note)}
      />
      <Chips>
        <Chip onPress={() => to(pitchBy(lane, pitch, -1))}>{tuned.aNoteLower}</Chip>
        <Chip onPress={() => to(pitchBy(lane, pitch, 1))}>{tuned.aNoteHigher}</Chip>
      </Chips>
      {chord ? <Para quiet>{tuned.chord(chord)}</Para> : null}
    </>
  );
};

/** How much higher or lower than their lane's note hits sound. */
const Pitch = ({ spots, hit }: HitsProps) => {
  const startOf = useStart();
  const pitch = hit.pitch ?? 0;
  return (
    <Range
      label={made.pitchOfHits}
      short={made.pitchShort}
      value={pitch}
      {...bounds({ ...RANGES.pitch, least: Math.min(-24, pitch), most: Math.max(24, pitch) })}
      step={1}
      shown={made.semitones(pitch)}
      onChange={(to, gesture) =>
        edit('shiftPitches', { spots, by: to - startOf(gesture, pitch) }, gesture, true)
      }
    />
  );
};

const CYCLES = ['1', '2', '3', '4', '5', '6', '7', '8'].map((value) => ({
  value,
  name: value === '1' ? words.everyPass : words.ofManyPasses(value),
}));

const Chance = ({ spots, hit }: HitsProps) => {
  const { passes } = hit;
  const set = (of: number, on: number[]) =>
    edit('setPasses', { spots, passes: of < 2 ? null : { of, on: on.length ? on : [of - 1] } });
  const flip = (at: number) => {
    const { of, on } = passes!;
    const left = on.includes(at) ? on.filter((one) => one !== at) : [...on, at].sort((a, b) => a - b);
    set(of, left);
  };
  return (
    <Group title={words.chance}>
      <Figure
        of="chance"
        label={words.chanceOfTheHits}
        short={words.chance}
        value={hit.chance}
        onChange={(chance, gesture) => edit('setChances', { spots, chance }, gesture)}
      />
      <Choice
        label={words.onWhichPassesTheHits}
        short={words.soundsOn}
        value={String(passes?.of ?? 1)}
        options={CYCLES}
        onChange={(of) =>
          set(
            Number(of),
            (passes?.on ?? []).filter((at) => at < Number(of)),
          )
        }
      />
      {passes ? (
        <Chips label={words.passesOfTheCycle}>
          {Array.from({ length: passes.of }, (_, at) => (
            <CheckBox
              key={at}
              label={words.passAt(at + 1)}
              checked={passes.on.includes(at)}
              onChange={() => flip(at)}
            >
              {String(at + 1)}
            </CheckBox>
          ))}
        </Chips>
      ) : null}
    </Group>
  );
};

/**
 * What can be done to hits: those that are selected, the open lane's, or all.
 *
 * @param beside the lane whose sound stands there while no hit is selected, where there is room
 */
export const HitPage = ({ beside }: { beside?: Lane | undefined }) => {
  const openLane = useApp(({ focus }) => focus.openLane);
  const pattern = useApp(selectPattern)!;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const target = useApp(selectTarget);
  const hits = hitsOn(pattern, target.spots);
  const lane = lanes.find(({ id }) => id === (target.spots[0]?.laneId ?? openLane));
  const hit = hits[0]?.hit;
  const { spots } = target;
  const all = { spots, hit: hit!, count: hits.length };
  return (
    <>
      <ScopeChoice target={target} lane={lane} count={hits.length} />
      <Selecting />
      <Clipboard spots={hit ? spots : []} />
      {hit ? (
        <>
          <Velocity {...all} />
          <RollPart {...all} />
          <Graces {...all} />
          <Timing {...all} />
          {lane?.tuning && spots.every(({ laneId }) => laneId === lane.id) ? (
            <LaneNotes lane={lane} spots={spots} hit={hit} />
          ) : (
            <Pitch {...all} />
          )}
          <Chance {...all} />
          <Hands {...all} />
        </>
      ) : (
        <>
          <Para quiet>{openLane ? words.tapABeadInThe : words.pressALanesNameTo}</Para>
          {beside ? <SoundPage lane={beside} /> : null}
        </>
      )}
    </>
  );
};
