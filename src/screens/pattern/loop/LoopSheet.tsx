import { useEffect, useState } from 'react';
import { RANGES } from '../../../../core/document/ranges';
import type { Lane, Loop, Sample } from '../../../../core/document/schema';
import { bpmOf } from '../../../../core/samples/loopTempo';
import { SHIPPED_LIST } from '../../../../core/samples/shippedList';
import { selectBeat, selectPattern, useApp } from '../../../store/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Chips, Group } from '../../../ui/Layout';
import { NumberField } from '../../../ui/NumberField';
import { Sheet } from '../../../ui/Sheet';
import { Para, Words } from '../../../ui/Words';
import { DropFiles } from '../../../web/DropFiles';
import { useFileField } from '../../../web/fileField';
import { askDesk } from '../../../workers/askOwn';
import type { SoundTakenIn } from '../../../workers/soundDesk';
import { words } from '../../../words/sounds';
import { AUDIO_FILES, takeSounds, tell } from '../takeSounds';
import { LoopCuts } from './LoopCuts';
import { LoopUses } from './LoopUses';
import { heldLoopTempo, openLoop, type OpenLoop } from './openLoop';

const quartersOf = ({ beats, unit }: { beats: number; unit: number }): number => (4 * beats) / unit;

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

/** How long a loop is: of what its length allows the likeliest first, or any number of bars. */
const LoopLength = ({
  state: { loop, found, sample },
  quarters,
  onLoop,
}: {
  state: OpenLoop;
  quarters: number;
  onLoop: (loop: Loop) => void;
}) => {
  const likely = found.tempos.some(({ bars }) => bars === loop.bars);
  const lengths = likely ? found.tempos : [...found.tempos, { bars: loop.bars, bpm: loop.tempo }];
  const setBars = (bars: number) =>
    onLoop({ ...loop, bars, tempo: heldLoopTempo(bpmOf(loop.end, bars, quarters)) });
  return (
    <Group title={sample.file}>
      <Choice
        label={words.howLong}
        short={words.bars}
        value={String(loop.bars)}
        options={lengths.map(({ bars, bpm }) => ({
          value: String(bars),
          name: words.barsAt(bars, bpm.toFixed(1)),
        }))}
        onChange={(bars) => setBars(Number(bars))}
      />
      <NumberField
        label={words.bars}
        value={loop.bars}
        least={RANGES.loopBars.least}
        most={RANGES.loopBars.most}
        under={words.bars.toLowerCase()}
        width={64}
        onChange={(bars) => setBars(Math.round(bars))}
      />
    </Group>
  );
};

/** A loop is brought, cut at its hits, and becomes a lane, drums or a timing. @param lane whose loop is changed */
export const LoopSheet = ({ lane, onClose }: { lane?: Lane; onClose: () => void }) => {
  const beat = useApp(selectBeat)!;
  const meter = useApp((state) => selectPattern(state)!.meter);
  const quarters = quartersOf(meter);
  const [state, setState] = useState<OpenLoop | null>(null);
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
    const taken = await askDesk<SoundTakenIn | null>(
      (far) => far.shippedLoop(id) as Promise<SoundTakenIn | null>,
    );
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
            <LoopLength state={state} quarters={quarters} onLoop={setLoop} />
            <LoopCuts
              state={state}
              quarters={quarters}
              onLoop={setLoop}
              onFound={(found, loop) => setState((now) => now && { ...now, found, loop })}
            />
            <LoopUses beat={beat} state={state} onClose={onClose} {...(lane && { lane })} />
          </>
        ) : null}
      </DropFiles>
    </Sheet>
  );
};
