import { nanoid } from '@reduxjs/toolkit';
import { zipSync } from 'fflate';
import { patternOf } from '../../../../core/document/defaults';
import { instrument } from '../../../../core/document/instruments';
import type { Beat, Lane } from '../../../../core/document/schema';
import { loopTemplate } from '../../../../core/samples/loopTemplate';
import { sliceName } from '../../../../core/samples/sliceName';
import type { SliceKind } from '../../../../core/samples/sliceKinds';
import { TEMPO } from '../../../../core/units';
import { beatEdited, tempoSet } from '../../../store/doc';
import { laneShown } from '../../../store/focus';
import { selectPattern, useApp, useAppStore, useDo } from '../../../store/store';
import { Chip } from '../../../ui/Chip';
import { saveBytes } from '../../../ui/files';
import { Chips } from '../../../ui/Layout';
import { askDesk } from '../../../workers/askOwn';
import { words } from '../../../words/sounds';
import { tell } from '../takeSounds';
import type { OpenLoop } from './openLoop';

const textOfKinds = (kinds: (SliceKind | null)[]): string => {
  const counts = new Map<string, number>();
  for (const kind of kinds)
    for (const { instrument: id } of kind ? [kind, ...(kind.also ?? [])] : [])
      counts.set(id, (counts.get(id) ?? 0) + 1);
  return [...counts]
    .map(([id, count]) => `${count} × ${instrument(id as SliceKind['instrument']).name.toLowerCase()}`)
    .join(', ');
};

/** What becomes of a loop. */
export const LoopUses = ({
  beat,
  state,
  lane,
  onClose,
}: {
  beat: Beat;
  state: OpenLoop;
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
    act(laneShown(id, 'sound'));
    tell(words.laneAdded(name));
    onClose();
  };
  const toDrums = async () => {
    const kinds = await askDesk<SliceKind[] | null>((far) => far.kinds(loop) as Promise<SliceKind[] | null>);
    if (!kinds) return tell(words.noAnswer, true);
    const ids = Object.fromEntries(
      [...new Set(kinds.flatMap((kind) => [kind, ...(kind.also ?? [])].map((one) => one.instrument)))].map(
        (id) => [id, nanoid()],
      ),
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
