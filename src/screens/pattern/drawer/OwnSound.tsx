import { useEffect, useState } from 'react';
import { DRUM_IDS, instrument, type InstrumentId } from '../../../../core/document/instruments';
import { CHOOSINGS, SOUND, type Choosing } from '../../../../core/document/choices';
import { newBeat } from '../../../../core/document/defaults';
import { bounds, RANGES } from '../../../../core/document/ranges';
import type { Beat, Lane, Layer, Sample, Voice } from '../../../../core/document/schema';
import type { DrumFigures } from '../../../../core/sound/fitting';
import { KIT_LIST, kitToldOf } from '../../../../core/sound/kitList';
import { layerOfSample, voiceOfDrum, voiceOfSamples } from '../../../../core/sound/newVoice';
import { hearLane } from '../../../audio/player';
import { beatEdited } from '../../../state/doc';
import { selectBeat, useApp, useDo } from '../../../state/store';
import { WaveHand } from '../../../strings/WaveHand';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Disclosure } from '../../../ui/Disclosure';
import { saveBeatFile, saveBytes } from '../../../ui/files';
import { Chips, Group } from '../../../ui/Layout';
import { Range } from '../../../ui/Range';
import { Para } from '../../../ui/Words';
import { DropFiles } from '../../../web/DropFiles';
import { useFileField } from '../../../web/fileField';
import { askDesk } from '../../../workers/askOwn';
import type { Wave } from '../../../workers/soundDesk';
import { words } from '../../../words/sounds';
import { takeSounds, tell } from '../takeSounds';

const AUDIO = 'audio/*,.wav,.aif,.aiff,.flac,.mp3,.ogg';
const HARD = 110;

const nameOf = ({ source }: Layer): string =>
  'sample' in source
    ? source.sample.file
    : words.drumFrom(instrument(source.drum).name, kitToldOf(source.kit).name);

/** What is asked of the desk for a layer; null while it is not there, undefined where it is missing. */
const useWave = (layer: Layer): Wave | null | undefined => {
  const id = 'sample' in layer.source ? layer.source.sample.id : null;
  const [wave, setWave] = useState<{ id: string; wave: Wave | undefined } | null>(null);
  useEffect(() => {
    let wanted = true;
    if (id)
      void askDesk<Wave | null>((far) => far.wave(id) as Promise<Wave | null>).then(
        (found) => wanted && setWave({ id, wave: found ?? undefined }),
      );
    return () => {
      wanted = false;
    };
  }, [id]);
  return wave?.id === id ? wave?.wave : null;
};

interface LayerProps {
  layer: Layer;
  at: number;
  only: boolean;
  onChange: (layer: Layer, gesture?: string) => void;
  onRemove: () => void;
}

const NO_FILTER = 'none';
type Pass = NonNullable<Layer['filter']>['pass'] | typeof NO_FILTER;
const PASSES: Pass[] = [NO_FILTER, 'low', 'high', 'band'];
const FIRST_FILTER: NonNullable<Layer['filter']> = { pass: 'low', hertz: 4000, slope: 12, follow: 0 };

/** Without what is as it is by itself: a document holds what was set. */
const set = <K extends keyof Layer>(layer: Layer, key: K, value: Layer[K] | undefined): Layer => {
  const { [key]: _, ...rest } = layer;
  return (value === undefined ? rest : { ...rest, [key]: value }) as Layer;
};

const hertzText = (hertz: number): string =>
  hertz >= 1000 ? `${(hertz / 1000).toFixed(1)} kHz` : `${Math.round(hertz)} Hz`;

/** Where a layer begins, ends and has its attack, on its wave. */
const LayerWave = ({
  layer,
  name,
  onChange,
}: { layer: Layer; name: string } & Pick<LayerProps, 'onChange'>) => {
  const wave = useWave(layer);
  if (!('sample' in layer.source)) return null;
  if (wave === undefined) return <Para>{words.isMissing(layer.source.sample.file)}</Para>;
  if (!wave) return null;
  const [start, end] = [layer.start ?? 0, Math.min(layer.end ?? wave.seconds, wave.seconds)];
  const lands = layer.lands ?? Math.max(0, wave.attack - start);
  const move = (place: number, to: number, gesture: string) => {
    if (place === 0)
      onChange(set(layer, 'start', Math.max(0, Math.min(to, end - 0.005)) || undefined), gesture);
    else if (place === 1)
      onChange(set(layer, 'end', to >= wave.seconds ? undefined : Math.max(start + 0.005, to)), gesture);
    else onChange(set(layer, 'lands', Math.max(0, to - start)), gesture);
  };
  return (
    <>
      <WaveHand
        label={words.waveOf(name)}
        wave={wave}
        from={start}
        to={end}
        marks={[
          { name: words.ofLayer(words.start, name), at: start },
          { name: words.ofLayer(words.end, name), at: end },
          { name: words.ofLayer(words.attackMark, name), at: start + lands, low: true },
        ]}
        onMove={move}
      />
      <Para quiet>{words.attackAt(words.ms(lands * 1000))}</Para>
    </>
  );
};

/** All that shapes one layer. */
const LayerPart = ({ layer, at, only, onChange, onRemove }: LayerProps) => {
  const name = nameOf(layer);
  const { filter } = layer;
  const range = (
    key: 'level' | 'pan' | 'tune' | 'fine' | 'attack' | 'hold' | 'decay' | 'drive' | 'gate',
    short: string,
    given: { least: number; most: number; step: number; idle: number; shown: string },
  ) => (
    <Range
      label={words.ofLayer(short, name)}
      short={short}
      value={layer[key] ?? given.idle}
      least={given.least}
      most={given.most}
      step={given.step}
      shown={given.shown}
      onChange={(value, gesture) =>
        onChange(set(layer, key, value === given.idle ? undefined : value), gesture)
      }
    />
  );
  const { field, choose } = useFileField({
    label: words.ofLayer(words.replace, name),
    accept: AUDIO,
    onFiles: (files) =>
      void takeSounds(files).then(
        ([sample]) =>
          sample && onChange({ ...layer, source: { sample }, start: undefined, end: undefined } as Layer),
      ),
  });
  return (
    <Disclosure title={words.layerOf(at + 1, name)} open={only}>
      {field}
      <LayerWave layer={layer} name={name} onChange={onChange} />
      <Chips>
        <Chip
          pressed={layer.reverse === true}
          onPress={() => onChange(set(layer, 'reverse', layer.reverse ? undefined : true))}
        >
          {words.reverse}
        </Chip>
        <Chip onPress={choose}>{words.replace}</Chip>
        {only ? null : <Chip onPress={onRemove}>{words.removeLayer}</Chip>}
      </Chips>
      {only ? null : (
        <>
          <Range
            label={words.softOf(name)}
            short={words.soft}
            value={layer.low}
            {...bounds(RANGES.velocity)}
            step={1}
            shown={String(layer.low)}
            onChange={(low, gesture) => onChange({ ...layer, low, high: Math.max(low, layer.high) }, gesture)}
          />
          <Range
            label={words.hardOf(name)}
            short={words.hard}
            value={layer.high}
            {...bounds(RANGES.velocity)}
            step={1}
            shown={String(layer.high)}
            onChange={(high, gesture) =>
              onChange({ ...layer, high, low: Math.min(high, layer.low) }, gesture)
            }
          />
        </>
      )}
      {range('level', words.level, {
        ...bounds(RANGES.level),
        step: 0.01,
        idle: 1,
        shown: words.percent(layer.level ?? 1),
      })}
      {range('pan', words.pan, {
        ...bounds(RANGES.pan),
        step: 0.01,
        idle: 0,
        shown: words.percent(layer.pan ?? 0),
      })}
      {range('tune', words.tune, {
        ...bounds(RANGES.tune),
        step: 1,
        idle: 0,
        shown: words.semitones(layer.tune ?? 0),
      })}
      {range('fine', words.fine, {
        ...bounds(RANGES.fine),
        step: 1,
        idle: 0,
        shown: words.cents(layer.fine ?? 0),
      })}
      {range('attack', words.attack, {
        least: 0,
        most: 500,
        step: 1,
        idle: 0,
        shown: words.ms(layer.attack ?? 0),
      })}
      {range('hold', words.hold, {
        least: 0,
        most: 1000,
        step: 5,
        idle: 0,
        shown: words.ms(layer.hold ?? 0),
      })}
      {range('decay', words.decay, {
        least: 10,
        most: RANGES.envelope.most,
        step: 10,
        idle: RANGES.envelope.most,
        shown: layer.decay === undefined ? words.asItRings : words.ms(layer.decay),
      })}
      {range('drive', words.drive, {
        ...bounds(RANGES.drive),
        step: 0.1,
        idle: 0,
        shown: layer.drive ? layer.drive.toFixed(1) : words.none,
      })}
      {range('gate', words.gate, {
        ...bounds(RANGES.gate),
        step: 1,
        idle: RANGES.gate.least,
        shown: layer.gate === undefined ? words.none : words.decibels(layer.gate),
      })}
      <Choice<Pass>
        label={words.filterOf(name)}
        short={words.filter}
        value={filter?.pass ?? NO_FILTER}
        options={PASSES.map((value) => ({ value, name: words.pass[value] }))}
        onChange={(pass) =>
          onChange(
            set(layer, 'filter', pass === NO_FILTER ? undefined : { ...FIRST_FILTER, ...filter, pass }),
          )
        }
      />
      {filter ? (
        <>
          <Range
            label={words.ofLayer(words.cutoff, name)}
            short={words.cutoff}
            value={Math.log2(filter.hertz)}
            least={Math.log2(RANGES.cutoff.least)}
            most={Math.log2(RANGES.cutoff.most)}
            step={0.02}
            shown={hertzText(filter.hertz)}
            onChange={(value, gesture) =>
              onChange(
                { ...layer, filter: { ...filter, hertz: Math.max(20, Math.min(20000, 2 ** value)) } },
                gesture,
              )
            }
          />
          <Range
            label={words.ofLayer(words.follows, name)}
            short={words.follows}
            value={filter.follow}
            {...bounds(RANGES.follow)}
            step={0.1}
            shown={words.octaves(filter.follow)}
            onChange={(follow, gesture) => onChange({ ...layer, filter: { ...filter, follow } }, gesture)}
          />
          <Chips>
            <Chip
              pressed={filter.slope === 24}
              onPress={() =>
                onChange({ ...layer, filter: { ...filter, slope: filter.slope === 24 ? 12 : 24 } })
              }
            >
              {words.steep}
            </Chip>
          </Chips>
        </>
      ) : null}
    </Disclosure>
  );
};

/** A drum of any kit, stacked upon what is there. */
const StackDrum = ({ onAdd }: { onAdd: (kit: string, drum: InstrumentId) => void }) => {
  const [open, setOpen] = useState(false);
  const [kit, setKit] = useState(KIT_LIST[0]!.id);
  const [drum, setDrum] = useState<InstrumentId>('clap');
  return (
    <>
      <Chips>
        <Chip pressed={open} onPress={() => setOpen(!open)}>
          {words.drumOfKit}
        </Chip>
      </Chips>
      {open ? (
        <>
          <Choice
            label={words.whichKit}
            short={words.kit}
            value={kit}
            options={KIT_LIST.map(({ id, name }) => ({ value: id, name }))}
            onChange={setKit}
          />
          <Choice<InstrumentId>
            label={words.whichDrum}
            short={words.drum}
            value={drum}
            options={DRUM_IDS.map((value) => ({ value, name: instrument(value).name }))}
            onChange={setDrum}
          />
          <Chips>
            <Chip onPress={() => onAdd(kit, drum)}>{words.add}</Chip>
          </Chips>
        </>
      ) : null}
    </>
  );
};

/** Drums of other kits that go with what plays beside it. */
const Fitting = ({ beat, lane, onUse }: { beat: Beat; lane: Lane; onUse: (kit: string) => void }) => {
  const [found, setFound] = useState<DrumFigures[] | 'looking' | null>(null);
  const look = async () => {
    setFound('looking');
    const others = [...new Set(beat.lanes.map((one) => one.instrument))];
    const all = await askDesk<DrumFigures[]>(
      (far) => far.fitting(lane.instrument, beat.kit, others) as Promise<DrumFigures[]>,
    );
    if (!all) tell(words.noAnswer, true);
    setFound(all && all.filter(({ kit }) => kit !== beat.kit).slice(0, 4));
  };
  return (
    <>
      <Chips>
        <Chip disabled={found === 'looking'} onPress={() => void look()}>
          {found === 'looking' ? words.looking : words.fitting}
        </Chip>
      </Chips>
      {Array.isArray(found) ? (
        <>
          <Para quiet>{words.fits}</Para>
          <Chips>
            {found.map(({ kit }) => (
              <Chip key={kit} onPress={() => onUse(kit)}>
                {words.drumFrom(instrument(lane.instrument).name, kitToldOf(kit).name)}
              </Chip>
            ))}
          </Chips>
        </>
      ) : null}
    </>
  );
};

const spreadOver = (layers: Layer[]): Layer[] =>
  layers.map((layer, at) => ({
    ...layer,
    low: Math.max(1, Math.round((127 * at) / layers.length) + (at ? 1 : 0)),
    high: Math.round((127 * (at + 1)) / layers.length),
  }));

/** A beat of one lane alone, with its sound and all its patterns. */
const laneAsBeat = (beat: Beat, lane: Lane): Beat => ({
  ...beat,
  id: newBeat(`${beat.id}-${lane.id}`.slice(0, 60), lane.name, beat.seed).id,
  name: `${beat.name}, ${lane.name}`.slice(0, 80),
  groups: [],
  lanes: [(({ group: _, ...rest }) => rest)(lane) as Lane],
  patterns: beat.patterns.map((pattern) => ({
    ...pattern,
    parts: pattern.parts[lane.id] ? { [lane.id]: pattern.parts[lane.id]! } : {},
    takes: [],
  })),
  tray: [],
  song: { sections: [], order: [] },
});

/** What a lane sounds like: the kit's drum, or a voice of its own with its layers. */
export const OwnSound = ({ lane }: { lane: Lane }) => {
  const act = useDo();
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
    const layers = [...(voice?.layers ?? []), ...samples.map(layerOfSample)].slice(0, SOUND.layers);
    setVoice(voice ? { ...voice, layers } : voiceOfSamples(samples.slice(0, SOUND.layers)));
  };
  const { field, choose } = useFileField({
    label: words.audioFiles,
    accept: AUDIO,
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
              <Range
                label={words.crossFadeOf(lane.name)}
                short={words.crossFade}
                value={voice.crossFade ?? 0}
                {...bounds(RANGES.crossFade)}
                step={1}
                shown={String(voice.crossFade ?? 0)}
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
          <Chip onPress={() => saveBeatFile(laneAsBeat(beat, lane))}>{words.laneAsBeat}</Chip>
        </Chips>
      </Group>
    </DropFiles>
  );
};
