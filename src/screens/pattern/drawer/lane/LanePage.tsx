import { Figure } from '../../../../ui/Figure';
import type { PartChange } from '../../../../../core/edit/defined/lanes';
import { TuningGroup, withInstrument } from './TuningGroup';
import { bounds, RANGES } from '../../../../../core/document/ranges';
import { STEPS } from '../../../../../core/document/choices';
import { LaneNumbers } from './LaneNumbers';
import { LaneOrder } from './LaneOrder';
import { Named } from '../../../../ui/Named';
import { Group, Figures, Chips } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import { lanePatternOf, stepsOf } from '../../../../../core/document/defaults';
import { GRIDS, type Grid } from '../../../../../core/document/grid';
import { INSTRUMENT_IDS, instrument, type InstrumentId } from '../../../../../core/document/instruments';
import { DIRECTIONS, PIGMENTS, RATES, type OFFBEAT_GRIDS } from '../../../../../core/document/choices';
import type { Direction, Lane, Rate } from '../../../../../core/document/schema';
import { heldNote, splitOff } from '../../../../../core/edit/lanes';
import { polymeterBars, polymeterText } from '../../../../../core/play/polymeter';
import { hiddenHits } from '../../../../../core/edit/seen';
import { noteName, type NoteNames } from '../../../../../core/document/noteName';
import { planLane } from '../../../../../core/play/plan';
import { ticksPerMs } from '../../../../../core/units';
import { LANE_PRESETS } from '../../../../../core/edit/presets';
import { beatEdited, laneChanged } from '../../../../store/doc';
import { persistence } from '../../../../keeping/session';
import { noticed } from '../../../../store/slices';
import { laneShown } from '../../../../store/focus';
import { noteNamesSet } from '../../../../store/look';
import { selectBeat, selectPattern, useApp, useAppStore, useDo } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { NameInput } from '../../../../ui/NameInput';
import { NumberField } from '../../../../ui/NumberField';
import { InstrumentIcon } from '../../../../ui/InstrumentIcon';
import { cancelLearning, learnNote, simulateNote } from '../../../../audio/noteInput';
import { TrialBar } from '../../TrialBar';
import { attempt, leaveTrial } from '../../../../store/trial';
import { edit, onLanes } from '../edit';
import { words } from '../../../../words/drawer';

const DIRECTION_NAMES: Record<Direction, string> = {
  forward: words.forward,
  backward: words.backward,
  thereAndBack: words.thereAndBack,
  random: words.randomOrder,
  walk: words.aWalkToNeighbours,
};
const GRID_NAMES = GRIDS.map((value) => ({
  value,
  name: value.replace('T', ' triplet').replace('D', ' dotted').replace('Q', ' quintuplet'),
}));

/** @example nudgeText(0.1, 150) // "+10 %, +15.0 ms" */
const nudgeText = (share: number, stepMs: number): string => {
  const sign = share < 0 ? '−' : '+';
  return share
    ? words.signShareSignShare2Ms(
        sign,
        Math.round(Math.abs(share) * 100),
        Math.abs(share * stepMs).toFixed(1),
      )
    : '0 %';
};

const Reading = ({ lane }: { lane: Lane }) => {
  const beat = useApp(selectBeat)!;
  const pattern = useApp(selectPattern)!;
  const [keepTime, setKeepTime] = useState(true);
  const part = lanePatternOf(pattern, lane.id);
  const steps = stepsOf(part, pattern);
  const stepMs = planLane(beat, pattern, lane).step / ticksPerMs(beat.tempo);
  const set = (change: PartChange, gesture?: string) =>
    edit('setPart', { laneIds: [lane.id], change }, gesture);
  const setSteps = (asked: number, gesture?: string) => {
    set({ steps: Math.round(asked) }, gesture);
  };
  return (
    <Group title={words.howItIsRead}>
      <Figures>
        <NumberField
          label={words.stepsOfLane(lane.name)}
          value={steps}
          {...STEPS}
          under={words.steps}
          width={64}
          onChange={setSteps}
        />
        <Chip disabled={part.steps === null} onPress={() => onLanes('asLongAsThePattern', [lane.id])}>
          {words.asLongAsThePattern}
        </Chip>
      </Figures>
      <Choice<Grid>
        label={words.gridOfLane(lane.name)}
        short={words.grid}
        value={part.grid}
        options={GRID_NAMES}
        onChange={(grid) => (keepTime ? edit('regrid', { laneIds: [lane.id], grid }) : set({ grid }))}
      />
      <Chips>
        <Chip pressed={keepTime} onPress={() => setKeepTime(!keepTime)}>
          {words.hitsKeepTheirTime}
        </Chip>
      </Chips>
      <Choice<Rate>
        label={words.rateOfLane(lane.name)}
        short={words.rate}
        value={part.rate}
        options={RATES.map((value) => ({ value, name: `${value} ×` }))}
        onChange={(rate) => set({ rate })}
      />
      <Choice<Direction>
        label={words.directionOfLane(lane.name)}
        short={words.direction}
        value={part.direction}
        options={DIRECTIONS.map((value) => ({ value, name: DIRECTION_NAMES[value] }))}
        onChange={(direction) => set({ direction })}
      />
      <Figure
        of="nudge"
        label={words.nudgeOfAllStepsOf(lane.name)}
        short={words.allSteps}
        value={part.shift ?? 0}
        shown={nudgeText(part.shift ?? 0, stepMs)}
        onChange={(shift, gesture) => set({ shift }, gesture)}
      />
      <Figure
        of="nudge"
        label={words.nudgeOfTheOffBeats(lane.name)}
        short={words.offBeats}
        value={part.offbeat ?? 0}
        shown={nudgeText(part.offbeat ?? 0, stepMs)}
        onChange={(offbeat, gesture) =>
          set(
            { offbeat, ...(!part.offbeat && !part.offbeatGrid && { offbeatGrid: '1/4' as const }) },
            gesture,
          )
        }
      />
      <Choice
        label={words.whichOffBeatsOfLane(lane.name)}
        short={words.offBeatsOf}
        value={part.offbeatGrid ?? (part.offbeat ? 'steps' : '1/4')}
        options={[
          { value: '1/4', name: words.theQuarters },
          { value: '1/8', name: words.theEighthsEAndA },
          { value: '1/16', name: words.theSixteenths },
          ...(part.offbeat && !part.offbeatGrid ? [{ value: 'steps', name: words.itsOwnSteps }] : []),
        ]}
        onChange={(of) => of !== 'steps' && set({ offbeatGrid: of as (typeof OFFBEAT_GRIDS)[number] })}
      />
      <Para quiet>{polymeterText(polymeterBars(beat, pattern), pattern.bars)}</Para>
    </Group>
  );
};

const Turning = ({ lane }: { lane: Lane }) => {
  const store = useAppStore();
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const normal = useApp((state) => selectBeat(state)!.levels.normal);
  const [every, setEvery] = useState(4);
  const trial = useApp(({ focus }) => focus.trial);
  const [asWritten, setAsWritten] = useState(false);
  const laneIds = [lane.id];
  const tried =
    trial?.edit.kind === 'pattern' && trial.edit.edit.edit === 'lanePreset'
      ? trial.edit.edit.args.presetId
      : null;
  const tryPreset = (presetId: string, whole: boolean) => {
    const preset = LANE_PRESETS.find(({ id }) => id === presetId);
    if (!preset) return leaveTrial(store);
    const args = { laneId: lane.id, presetId, ...(whole && { asWritten: true }) };
    attempt(store, preset.name, { kind: 'pattern', edit: { edit: 'lanePreset', args } });
  };
  const clear = (ids: string[]) => {
    const hidden = ids.reduce((sum, id) => sum + hiddenHits(pattern, id), 0);
    onLanes('clear', ids);
    if (hidden)
      act(
        noticed({
          text: words.hiddenHitBeyondTheEnd(hidden),
          subject: 'steps',
        }),
      );
  };
  const double = () => {
    if (stepsOf(lanePatternOf(pattern, lane.id), pattern) * 2 > STEPS.most)
      act(noticed({ text: words.aLaneHasAtMost, subject: 'steps' }));
    else onLanes('double', laneIds);
  };
  return (
    <Group title={words.wholeLane}>
      <Chips>
        <Chip onPress={() => onLanes('stepLeft', laneIds)}>{words.stepLeft}</Chip>
        <Chip onPress={() => onLanes('stepRight', laneIds)}>{words.stepRight}</Chip>
        <Chip onPress={() => onLanes('rotateLeft', laneIds)}>{words.rotateLeft}</Chip>
        <Chip onPress={() => onLanes('rotateRight', laneIds)}>{words.rotateRight}</Chip>
        <Chip onPress={() => onLanes('reverse', laneIds)}>{words.reverse}</Chip>
        <Chip onPress={() => onLanes('mirror', laneIds)}>{words.mirror}</Chip>
        <Chip onPress={double}>{words.double}</Chip>
        <Chip onPress={() => onLanes('halve', laneIds)}>{words.halve}</Chip>
        <Chip label={words.halfTimeTwiceAsFar} onPress={() => onLanes('halfTime', laneIds)}>
          {words.halfTime}
        </Chip>
        <Chip label={words.doubleTimeHalfAsFar} onPress={() => onLanes('doubleTime', laneIds)}>
          {words.doubleTime}
        </Chip>
        <Chip onPress={() => onLanes('thinOut', laneIds)}>{words.thinOut}</Chip>
        <Chip onPress={() => onLanes('thicken', laneIds)}>{words.thicken}</Chip>
        <Chip tone="danger" onPress={() => clear(laneIds)}>
          {words.clearLane}
        </Chip>
        <Chip tone="danger" onPress={() => clear(Object.keys(pattern.parts))}>
          {words.clearAllLanes}
        </Chip>
      </Chips>
      <Figures>
        <NumberField
          label={words.fillEveryNSteps}
          value={every}
          least={1}
          most={64}
          under={words.steps}
          width={64}
          onChange={(asked) => setEvery(Math.round(Math.min(64, Math.max(1, asked))))}
        />
        <Chip onPress={() => edit('fillEvery', { laneIds, every, from: 0, to: normal })}>
          {every === 1 ? words.fillEveryStep : words.fillOneStepInEvery(every)}
        </Chip>
      </Figures>
      <Choice
        label={words.presetForLane(lane.name)}
        short={words.preset}
        value={tried ?? ''}
        options={[
          { value: '', name: words.chooseARhythm },
          ...LANE_PRESETS.map(({ id, name, family }) => ({ value: id, name: `${name} (${family})` })),
        ]}
        onChange={(presetId) => tryPreset(presetId, asWritten)}
      />
      <Chips>
        <Chip
          pressed={asWritten}
          onPress={() => {
            setAsWritten(!asWritten);
            if (tried) tryPreset(tried, !asWritten);
          }}
        >
          {words.gridAndLengthOfThe}
        </Chip>
      </Chips>
      {tried ? <TrialBar /> : null}
    </Group>
  );
};

const Identity = ({ lane, at, count }: { lane: Lane; at: number; count: number }) => {
  const store = useAppStore();
  const act = useDo();
  const groups = useApp((state) => selectBeat(state)!.groups);
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const names = useApp(({ look }) => look.noteNames);
  const [learning, setLearning] = useState(false);
  const set = (change: Partial<Omit<Lane, 'id'>>, gesture?: string) =>
    act(laneChanged({ laneId: lane.id, change, ...(gesture && { gesture }) }));
  useEffect(() => cancelLearning, []);
  const learn = async () => {
    if (learning) return cancelLearning();
    setLearning(true);
    const note = await learnNote();
    setLearning(false);
    if (note === null) return;
    set({ note });
    act(noticed({ text: words.laneHasNoteNoteNow(lane.name, note), subject: 'notes' }));
  };
  const above = lanes[at - 1];
  return (
    <Group title={words.whatItIs} mark={<InstrumentIcon of={lane.instrument} />}>
      <Named name={words.name}>
        <NameInput label={words.nameOfTheLane} value={lane.name} onName={(name) => set({ name })} />
      </Named>
      <Choice<InstrumentId>
        label={words.instrumentOfLane(lane.name)}
        short={words.instrument}
        value={lane.instrument}
        options={INSTRUMENT_IDS.map((value) => ({ value, name: instrument(value).name }))}
        onChange={(id) => set(withInstrument(lane, id, instrument(id).note))}
      />
      <Figures>
        <NumberField
          label={words.noteOfLane(lane.name)}
          value={lane.note}
          {...bounds(RANGES.note)}
          under={noteName(lane.note, names) || words.note}
          width={64}
          onChange={(note, gesture) => set({ note: heldNote(note) }, gesture)}
        />
        <NumberField
          label={words.channelOfLane(lane.name)}
          value={lane.channel}
          {...bounds(RANGES.channel)}
          under={words.channel}
          width={56}
          onChange={(asked, gesture) =>
            set({ channel: Math.round(Math.min(16, Math.max(1, asked))) }, gesture)
          }
        />
        <Chip pressed={learning} onPress={() => void learn()}>
          {learning ? words.playANoteOrCancel : words.learnNote}
        </Chip>
      </Figures>
      {learning ? (
        <Chips label={words.simulatedNoteInput}>
          {[36, 38, 42, 46, 49, 60].map((note) => (
            <Chip key={note} label={words.simulateNoteNote(note)} onPress={() => simulateNote(note)}>
              {words.simulatedNote(note)}
            </Chip>
          ))}
        </Chips>
      ) : null}
      <Choice<NoteNames>
        label={words.whatNote60IsCalled}
        short={words.note60Is}
        value={names}
        options={[
          { value: 'c3', name: words.c3 },
          { value: 'c4', name: words.c4 },
          { value: 'none', name: words.aNumber },
        ]}
        onChange={(noteNames) => act(noteNamesSet(noteNames))}
      />
      <Chips>
        {[-12, -1, 1, 12].map((by) => (
          <Chip
            key={by}
            label={words.shiftAllNotesByBy(by)}
            onPress={() => {
              const leaves = lanes.some(({ note }) => note + by < 0 || note + by > 127);
              const text = words.noNoteWasShiftedOne;
              if (leaves) act(noticed({ text, subject: 'notes' }));
              else act(beatEdited({ edit: { edit: 'shiftNotes', args: { by } } }));
            }}
          >
            {words.allNotesBy(by > 0 ? '+' : '−', Math.abs(by))}
          </Chip>
        ))}
      </Chips>
      <Choice
        label={words.colourOfLane(lane.name)}
        short={words.colour}
        value={lane.pigment ?? instrument(lane.instrument).pigment}
        options={PIGMENTS.map((value) => ({ value, name: value }))}
        onChange={(pigment) => set({ pigment })}
      />
      <Choice
        label={words.chokeGroupOfLane(lane.name)}
        short={words.chokedBy}
        value={lane.choke === undefined ? '' : String(lane.choke)}
        options={[
          { value: '', name: words.itsInstrumentsOwn },
          { value: '0', name: words.nothing },
          ...[1, 2, 3, 4, 5, 6, 7, 8].map((value) => ({
            value: String(value),
            name: words.groupNumber(value),
          })),
        ]}
        onChange={(choke) => set(choke === '' ? ({ choke: undefined } as object) : { choke: Number(choke) })}
      />
      <Chips>
        {lane.group ? (
          <Chip
            onPress={() => act(beatEdited({ edit: { edit: 'ungroup', args: { groupId: lane.group! } } }))}
          >
            {words.takeApart(groups.find(({ id }) => id === lane.group)?.name)}
          </Chip>
        ) : (
          <Chip
            disabled={!above}
            onPress={() =>
              act(
                beatEdited({
                  edit: {
                    edit: 'groupLanes',
                    args: {
                      id: nanoid(),
                      name: words.aboveGroup(above!.name).slice(0, 80),
                      laneIds: above!.group
                        ? [
                            ...lanes.filter(({ group }) => group === above!.group).map(({ id }) => id),
                            lane.id,
                          ]
                        : [above!.id, lane.id],
                    },
                  },
                }),
              )
            }
          >
            {words.groupWithTheLaneAbove}
          </Chip>
        )}
        <Chip
          onPress={() => {
            const beat = store.getState().doc.beat!;
            void persistence.takeIn(splitOff(beat, lane.id, nanoid()));
          }}
        >
          {words.splitOffIntoABeat}
        </Chip>
        <Chip
          tone="danger"
          disabled={count < 2}
          onPress={() => {
            act(laneShown(null));
            act(beatEdited({ edit: { edit: 'removeLane', args: { laneId: lane.id } } }));
          }}
        >
          {words.removeLane}
        </Chip>
      </Chips>
    </Group>
  );
};

/** What can be done to the open lane. */
export const LanePage = ({ lane }: { lane: Lane }) => {
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  return (
    <>
      <Reading lane={lane} />
      <Turning key={lane.id} lane={lane} />
      <Identity lane={lane} at={lanes.indexOf(lane)} count={lanes.length} />
      <TuningGroup lane={lane} />
      <LaneNumbers lanes={lanes} />
      <LaneOrder lanes={lanes} />
    </>
  );
};
