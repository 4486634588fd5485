import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import { patternOf } from '../../../core/document/defaults';
import { RANGES } from '../../../core/document/ranges';
import type { Beat, Lane, Loop, Sample } from '../../../core/document/schema';
import { instrument } from '../../../core/document/instruments';
import { bpmOf } from '../../../core/sound/loopTempo';
import { loopTemplate } from '../../../core/sound/loopTemplate';
import { evenMarks, marksAt, movedMark, withMark, withoutMark } from '../../../core/sound/loops';
import { sliceName } from '../../../core/sound/sliceName';
import { SHIPPED_LIST } from '../../../core/sound/shippedList';
import type { SliceKind } from '../../../core/sound/sliceKinds';
import { TEMPO } from '../../../core/units';
import { zipSync } from 'fflate';
import { hearLane } from '../../audio/player';
import { beatEdited, tempoSet } from '../../state/doc';
import { selectBeat, selectPattern, useApp, useAppStore, useDo } from '../../state/store';
import { viewChanged } from '../../state/slices';
import { WaveHand } from '../../strings/WaveHand';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { saveBytes } from '../../ui/files';
import { Chips, Group } from '../../ui/Layout';
import { NumberField } from '../../ui/NumberField';
import { Range } from '../../ui/Range';
import { Sheet } from '../../ui/Sheet';
import { Para, Words } from '../../ui/Words';
import { DropFiles } from '../../web/DropFiles';
import { useFileField } from '../../web/fileField';
import { askDesk } from '../../workers/askOwn';
import type { LoopFound, TakenIn, Wave } from '../../workers/soundDesk';
import { words } from '../../words/sounds';
import { AUDIO_FILES, takeSounds, tell } from './takeSounds';

const USUAL = 50;
const EVEN = [4, 8, 16, 32, 64];
const ZOOMS = [1, 2, 4, 8];

const quartersOf = ({ beats, unit }: { beats: number; unit: number }): number => (4 * beats) / unit;

/** A lane that plays a loop without being in the beat. */
const tryLane = (loop: Loop): Lane => ({
  id: 'loop',
  name: words.loop,
  instrument: 'snare',
  note: 36,
  channel: 10,
  level: 1,
  pan: 0,
  mute: false,
  solo: false,
  loop,
});

interface State {
  sample: Sample;
  found: LoopFound;
  wave: Wave;
  loop: Loop;
}

/** A sample as a loop: its wave, its hits, cut at them, as long as it likely is. */
const openLoop = async (sample: Sample, quarters: number, loop?: Loop): Promise<State | null> => {
  const [wave, found] = await Promise.all([
    askDesk<Wave | null>((far) => far.wave(sample.id) as Promise<Wave | null>),
    askDesk<LoopFound | null>((far) => far.found(sample.id, USUAL, quarters) as Promise<LoopFound | null>),
  ]);
  if (!wave || !found) return null;
  const likely = found.tempos[0] ?? { bars: 1, bpm: bpmOf(found.seconds, 1, quarters) };
  return {
    sample,
    wave,
    found,
    loop: loop ?? {
      sample,
      marks: marksAt(found.onsets, found.seconds),
      end: found.seconds,
      bars: likely.bars,
      tempo: Math.min(400, Math.max(20, likely.bpm)),
    },
  };
};

const textOfKinds = (kinds: (SliceKind | null)[]): string => {
  const counts = new Map<string, number>();
  for (const kind of kinds) if (kind) counts.set(kind.instrument, (counts.get(kind.instrument) ?? 0) + 1);
  return [...counts]
    .map(([id, count]) => `${count} × ${instrument(id as SliceKind['instrument']).name.toLowerCase()}`)
    .join(', ');
};

/** Where a loop comes from. */
const LoopSource = ({
  busy,
  onSample,
  onShipped,
}: {
  busy: boolean;
  onSample: (files: File[]) => void;
  onShipped: (id: string) => void;
}) => {
  const { field, choose } = useFileField({ label: words.loopFile, accept: AUDIO_FILES, onFiles: onSample });
  return (
    <>
      {field}
      <Para quiet>{words.loopAbout}</Para>
      <Chips>
        <Chip disabled={busy} onPress={choose}>
          {words.chooseLoop}
        </Chip>
      </Chips>
      <Group title={words.ours}>
        <Chips>
          {SHIPPED_LIST.map(({ id, name }) => (
            <Chip key={id} disabled={busy} onPress={() => onShipped(id)}>
              {name}
            </Chip>
          ))}
        </Chips>
      </Group>
    </>
  );
};

/** How a loop is cut: at its hits or evenly, and every mark by hand. */
const Cuts = ({
  state: { wave, found, loop, sample },
  quarters,
  onLoop,
  onFound,
}: {
  state: State;
  quarters: number;
  onLoop: (loop: Loop) => void;
  onFound: (found: LoopFound, loop: Loop) => void;
}) => {
  const [sensitivity, setSensitivity] = useState(USUAL);
  const [even, setEven] = useState('hits');
  const [chosen, setChosen] = useState<number | null>(null);
  const [zoom, setZoom] = useState(0);
  const { marks, end, reversed = [] } = loop;
  const cut = (next: number[]) => onLoop({ ...loop, marks: next, reversed: [] });
  const listen = async (to: number) => {
    setSensitivity(to);
    const next = await askDesk<LoopFound | null>(
      (far) => far.found(sample.id, to, quarters) as Promise<LoopFound | null>,
    );
    if (next) onFound(next, { ...loop, marks: marksAt(next.onsets, next.seconds), reversed: [] });
  };
  const place = chosen !== null && chosen < marks.length ? chosen : null;
  const turned = place !== null && reversed.includes(place);
  return (
    <Group title={words.howCut}>
      <Choice
        label={words.howCut}
        short={words.slices(marks.length)}
        value={even}
        options={[
          { value: 'hits', name: words.atItsHits },
          ...EVEN.map((parts) => ({ value: String(parts), name: `${parts} ${words.evenly.toLowerCase()}` })),
        ]}
        onChange={(to) => {
          setEven(to);
          cut(to === 'hits' ? marksAt(found.onsets, found.seconds) : evenMarks(end, Number(to)));
        }}
      />
      {even === 'hits' ? (
        <Range
          label={words.sensitivity}
          short={words.sensitivity}
          value={sensitivity}
          least={0}
          most={100}
          step={1}
          shown={String(sensitivity)}
          onChange={(to) => void listen(to)}
        />
      ) : null}
      <WaveHand
        label={words.loopWave}
        wave={wave}
        zoom={ZOOMS[zoom]!}
        to={end}
        chosen={place}
        onChoose={setChosen}
        marks={marks.map((mark, at) => ({ name: words.slice(at + 1), at: mark, low: reversed.includes(at) }))}
        onMove={(at, to) => onLoop({ ...loop, marks: movedMark(marks, at, to, end) })}
        onTap={(at) => cut(withMark(marks, at, end))}
      />
      <Chips>
        <Chip disabled={zoom === 0} onPress={() => setZoom(zoom - 1)}>
          {words.unzoom}
        </Chip>
        <Chip disabled={zoom === ZOOMS.length - 1} onPress={() => setZoom(zoom + 1)}>
          {words.zoom}
        </Chip>
      </Chips>
      {place === null ? null : (
        <>
          <Words live>{words.slice(place + 1)}</Words>
          <Chips>
            <Chip onPress={() => void hearLane({ kit: 'quay' }, tryLane(loop), 100, place)}>
              {words.hearSlice}
            </Chip>
            <Chip
              pressed={turned}
              onPress={() =>
                onLoop({
                  ...loop,
                  reversed: turned ? reversed.filter((at) => at !== place) : [...reversed, place],
                })
              }
            >
              {words.backwards}
            </Chip>
            <Chip onPress={() => cut(withMark(marks, (marks[place]! + (marks[place + 1] ?? end)) / 2, end))}>
              {words.addMark}
            </Chip>
            <Chip disabled={!place} onPress={() => cut(withoutMark(marks, place))}>
              {words.removeMark}
            </Chip>
          </Chips>
        </>
      )}
    </Group>
  );
};

/** What becomes of a loop. */
const Uses = ({
  beat,
  state,
  lane,
  onClose,
}: {
  beat: Beat;
  state: State;
  lane?: Lane;
  onClose: () => void;
}) => {
  const act = useDo();
  const store = useAppStore();
  const shown = useApp(selectPattern);
  const pattern = patternOf(beat, shown?.id ?? null);
  const { loop, found } = state;
  const name = loop.sample.file.replace(/\.[^.]+$/, '').slice(0, 80);
  const strengths = loop.marks.map(
    (mark) =>
      found.onsets.reduce(
        (best, one) => (Math.abs(one.at - mark) < Math.abs(best.at - mark) ? one : best),
        found.onsets[0] ?? { at: 0, strength: 1 },
      ).strength,
  );
  const toLane = () => {
    const id = nanoid();
    act(beatEdited({ edit: { edit: 'addLoop', args: { id, name, loop, patternId: pattern.id } } }));
    if (!store.getState().doc.beat?.lanes.some((one) => one.id === id)) return tell(words.tooLong, true);
    act(viewChanged({ openLane: id, drawer: 'sound', cursor: null, selection: [] }));
    tell(words.laneAdded(name));
    onClose();
  };
  const toDrums = async () => {
    const kinds = await askDesk<SliceKind[] | null>((far) => far.kinds(loop) as Promise<SliceKind[] | null>);
    if (!kinds) return tell(words.noAnswer, true);
    const ids = Object.fromEntries(
      [...new Set(kinds.map((kind) => kind.instrument))].map((id) => [id, nanoid()]),
    );
    act(
      beatEdited({ edit: { edit: 'loopToDrums', args: { loop, told: kinds, patternId: pattern.id, ids } } }),
    );
    tell(words.drumsAdded(textOfKinds(kinds)));
    onClose();
  };
  const toTemplate = () => {
    const shape = loopTemplate(name, loop, strengths, pattern.meter);
    if (!shape) return;
    act(beatEdited({ edit: { edit: 'keepTemplate', args: { template: { id: nanoid(), ...shape } } } }));
    tell(words.templateKept(name));
  };
  const saveSlices = async () => {
    const slices = await askDesk<Uint8Array[] | null>(
      (far) => far.slices(loop) as Promise<Uint8Array[] | null>,
    );
    if (!slices) return tell(words.noAnswer, true);
    const files = slices.map((bytes, at) => [sliceName(at), bytes] as const);
    saveBytes(zipSync(Object.fromEntries(files), { level: 0 }), `${name} slices.zip`, 'application/zip');
  };
  const tempo = Math.min(TEMPO.most, Math.max(TEMPO.least, loop.tempo));
  return (
    <Chips>
      {lane ? (
        <>
          <Chip
            onPress={() => act(beatEdited({ edit: { edit: 'setLoop', args: { laneId: lane.id, loop } } }))}
          >
            {words.editLoop}
          </Chip>
          <Chip
            onPress={() => {
              act(
                beatEdited({
                  edit: { edit: 'setLoop', args: { laneId: lane.id, loop, rewrite: pattern.id } },
                }),
              );
              onClose();
            }}
          >
            {words.toLaneAgain}
          </Chip>
        </>
      ) : (
        <Chip onPress={toLane}>{words.toLane}</Chip>
      )}
      <Chip onPress={() => void toDrums()}>{words.toDrums}</Chip>
      <Chip onPress={toTemplate}>{words.toTemplate}</Chip>
      <Chip
        onPress={() => {
          act(tempoSet({ tempo }));
          tell(words.tempoTaken(tempo.toFixed(1)));
        }}
      >
        {words.toTempo}
      </Chip>
      <Chip onPress={() => void saveSlices()}>{words.saveSlices}</Chip>
    </Chips>
  );
};

/** A loop is brought, cut at its hits, and becomes a lane, drums or a timing. @param lane whose loop is changed */
export const LoopSheet = ({ lane, onClose }: { lane?: Lane; onClose: () => void }) => {
  const beat = useApp(selectBeat)!;
  const meter = useApp((state) => selectPattern(state)!.meter);
  const quarters = quartersOf(meter);
  const [state, setState] = useState<State | null>(null);
  const given = lane?.loop;
  const [busy, setBusy] = useState<string | null>(given ? words.listening : null);
  const open = async (sample: Sample | undefined) => {
    if (!sample) return setBusy(null);
    setBusy(words.listening);
    const next = await openLoop(sample, quarters);
    setBusy(null);
    if (next) setState(next);
    else tell(words.loopLost(sample.file), true);
  };
  useEffect(() => {
    if (!given) return;
    void openLoop(given.sample, quarters, given).then((next) => {
      setBusy(null);
      if (next) setState(next);
      else tell(words.loopLost(given.sample.file), true);
    });
    // Opened once: what it is changed to afterwards comes from here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const take = async (files: File[]) => {
    setBusy(words.listening);
    const [sample] = await takeSounds(files);
    await open(sample);
  };
  const shipped = async (id: string) => {
    setBusy(words.rendering);
    const taken = await askDesk<TakenIn | null>((far) => far.shippedLoop(id) as Promise<TakenIn | null>);
    if (!taken) tell(words.noAnswer, true);
    taken?.said.forEach((text) => tell(text, true));
    await open(taken?.samples[0]);
  };
  const setLoop = (loop: Loop) => setState((now) => now && { ...now, loop });
  return (
    <Sheet title={words.loop} open onClose={onClose}>
      <DropFiles onFiles={(files) => void take(files)}>
        {lane ? null : (
          <LoopSource
            busy={busy !== null}
            onSample={(files) => void take(files)}
            onShipped={(id) => void shipped(id)}
          />
        )}
        {busy ? <Words live>{busy}</Words> : null}
        {state ? (
          <>
            <Group title={state.sample.file}>
              <Choice
                label={words.howLong}
                short={words.bars}
                value={String(state.loop.bars)}
                options={[
                  ...state.found.tempos.map(({ bars, bpm }) => ({
                    value: String(bars),
                    name: words.barsAt(bars, bpm.toFixed(1)),
                  })),
                  ...(state.found.tempos.some(({ bars }) => bars === state.loop.bars)
                    ? []
                    : [
                        {
                          value: String(state.loop.bars),
                          name: words.barsAt(state.loop.bars, state.loop.tempo.toFixed(1)),
                        },
                      ]),
                ]}
                onChange={(bars) =>
                  setLoop({
                    ...state.loop,
                    bars: Number(bars),
                    tempo: Math.min(400, Math.max(20, bpmOf(state.loop.end, Number(bars), quarters))),
                  })
                }
              />
              <NumberField
                label={words.bars}
                value={state.loop.bars}
                least={RANGES.loopBars.least}
                most={RANGES.loopBars.most}
                under={words.bars.toLowerCase()}
                width={64}
                onChange={(bars) =>
                  setLoop({
                    ...state.loop,
                    bars: Math.round(bars),
                    tempo: Math.min(400, Math.max(20, bpmOf(state.loop.end, Math.round(bars), quarters))),
                  })
                }
              />
            </Group>
            <Cuts
              state={state}
              quarters={quarters}
              onLoop={setLoop}
              onFound={(found, loop) => setState((now) => now && { ...now, found, loop })}
            />
            <Uses beat={beat} state={state} onClose={onClose} {...(lane && { lane })} />
          </>
        ) : null}
      </DropFiles>
    </Sheet>
  );
};
