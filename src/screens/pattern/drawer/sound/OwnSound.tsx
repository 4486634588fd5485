import { Figure } from '../../../../ui/Figure';
import { nanoid } from '@reduxjs/toolkit';
import { instrument } from '../../../../../core/document/instruments';
import { CHOOSINGS, SOUND, type Choosing } from '../../../../../core/document/choices';
import type { Lane, Layer, Sample, Voice } from '../../../../../core/document/schema';
import { laneAlone } from '../../../../../core/edit/laneAlone';
import { kitToldOf } from '../../../../../core/synthesis/kitList';
import { layerOfSample, spreadOver, voiceOfDrum, voiceOfSamples } from '../../../../../core/samples/newVoice';
import { hearLane } from '../../../../audio/player';
import { beatEdited } from '../../../../store/doc';
import { selectBeat, useApp, useAppStore, useDo } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { saveBytes } from '../../../../ui/files';
import { saveBeat } from '../../../saveBeats';
import { Chips, Group } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { DropFiles } from '../../../../web/DropFiles';
import { useFileField } from '../../../../web/fileField';
import { askDesk } from '../../../../workers/askOwn';
import { words } from '../../../../words/sounds';
import { AUDIO_FILES, takeSounds, tell } from '../../takeSounds';
import { LayerPart } from './LayerPart';
import { Fitting, StackDrum } from './OtherDrums';

const HARD = 110;

/** What a lane sounds like: the kit's drum, or a voice of its own with its layers. */
export const OwnSoundPart = ({ lane }: { lane: Lane }) => {
  const act = useDo();
  const store = useAppStore();
  const beat = useApp(selectBeat)!;
  const { voice } = lane;
  const kitVoice = beat.own?.voices[lane.instrument];
  const setVoice = (next: Voice | null, gesture?: string) =>
    act(
      beatEdited({
        edit: { edit: 'setVoice', args: { laneId: lane.id, voice: next } },
        ...(gesture && { gesture }),
      }),
    );
  const begun = (): Voice => voice ?? kitVoice ?? voiceOfDrum(beat.kit, lane.instrument);
  const addSamples = (samples: Sample[]) => {
    if (!samples.length) return;
    // Taking them in takes a while: they are added to what the lane has by now, and to none of another beat.
    const open = selectBeat(store.getState());
    const now = open?.id === beat.id ? open.lanes.find(({ id }) => id === lane.id) : undefined;
    if (!now) return tell(words.laneIsGone(lane.name), true);
    const layers = [...(now.voice?.layers ?? []), ...samples.map(layerOfSample)].slice(0, SOUND.layers);
    setVoice(now.voice ? { ...now.voice, layers } : voiceOfSamples(samples.slice(0, SOUND.layers)));
  };
  const { field, choose } = useFileField({
    label: words.audioFiles,
    accept: AUDIO_FILES,
    multiple: true,
    onFiles: (files) => void takeSounds(files).then(addSamples),
  });
  const hear = () => void hearLane({ kit: beat.kit, ...(beat.own && { own: beat.own }) }, lane, HARD);
  const change = (layers: Layer[], gesture?: string) => voice && setVoice({ ...voice, layers }, gesture);
  const saveStrike = async () => {
    const own = beat.own ?? { name: '-', voices: {} };
    const bytes = await askDesk<Uint8Array>(
      (far) => far.strike({ kit: beat.kit, own }, lane, HARD) as Promise<Uint8Array>,
    );
    if (bytes) saveBytes(bytes, `${lane.name}.wav`, 'audio/wav');
    else tell(words.noAnswer, true);
  };
  return (
    <DropFiles onFiles={(files) => void takeSounds(files).then(addSamples)}>
      <Group title={words.whatSounds(lane.name)}>
        {field}
        <Para quiet>
          {voice
            ? words.playsOwn(words.layers(voice.layers.length))
            : kitVoice
              ? words.playsKitOwn(beat.own!.name)
              : words.playsKit(instrument(lane.instrument).name, kitToldOf(beat.kit).name)}
        </Para>
        <Chips>
          <Chip onPress={choose}>{words.chooseFiles}</Chip>
          <Chip onPress={hear}>{words.hear}</Chip>
          {voice ? (
            <>
              <Chip onPress={() => setVoice(null)}>{words.backToKit}</Chip>
              <Chip
                onPress={() => {
                  act(
                    beatEdited({
                      edit: { edit: 'setKitVoice', args: { instrument: lane.instrument, voice } },
                    }),
                  );
                  setVoice(null);
                }}
              >
                {words.toKit}
              </Chip>
            </>
          ) : (
            <Chip onPress={() => setVoice(begun())}>{words.change}</Chip>
          )}
        </Chips>
        {voice ? (
          <>
            {voice.layers.length > 1 ? (
              <Choice<Choosing>
                label={words.choosingOf(lane.name)}
                short={words.choosing}
                value={voice.choose}
                options={CHOOSINGS.map((value) => ({ value, name: words.choose[value] }))}
                onChange={(to) =>
                  setVoice({
                    ...voice,
                    choose: to,
                    layers:
                      to === 'velocity' && voice.layers.every(({ low, high }) => low === 1 && high === 127)
                        ? spreadOver(voice.layers)
                        : voice.layers,
                  })
                }
              />
            ) : null}
            {voice.choose === 'velocity' && voice.layers.length > 1 ? (
              <Figure
                of="crossFade"
                label={words.crossFadeOf(lane.name)}
                short={words.crossFade}
                value={voice.crossFade ?? 0}
                onChange={(crossFade, gesture) => setVoice({ ...voice, crossFade }, gesture)}
              />
            ) : null}
            <Chips>
              <Chip pressed={voice.held === true} onPress={() => setVoice({ ...voice, held: !voice.held })}>
                {words.endsWithNote}
              </Chip>
              <Chip pressed={voice.late !== true} onPress={() => setVoice({ ...voice, late: !voice.late })}>
                {words.onTheHit}
              </Chip>
            </Chips>
            {voice.layers.map((layer, at) => (
              <LayerPart
                // Layers have no ids: which one it is is its place.
                key={at}
                layer={layer}
                at={at}
                only={voice.layers.length === 1}
                onChange={(next, gesture) =>
                  change(
                    voice.layers.map((one, place) => (place === at ? next : one)),
                    gesture,
                  )
                }
                onRemove={() => change(voice.layers.filter((_, place) => place !== at))}
              />
            ))}
          </>
        ) : null}
        <StackDrum
          onAdd={(kit, drum) => {
            const there = begun();
            const layers = [...there.layers, ...voiceOfDrum(kit, drum).layers].slice(0, SOUND.layers);
            setVoice({ ...there, choose: there.layers.length > 1 ? there.choose : 'stacked', layers });
          }}
        />
        <Fitting beat={beat} lane={lane} onUse={(kit) => setVoice(voiceOfDrum(kit, lane.instrument))} />
        <Chips>
          <Chip onPress={() => void saveStrike()}>{words.saveStrike}</Chip>
          <Chip onPress={() => void saveBeat(laneAlone(beat, lane.id, nanoid()))}>{words.laneAsBeat}</Chip>
        </Chips>
      </Group>
    </DropFiles>
  );
};
