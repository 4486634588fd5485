import { useEffect, useState } from 'react';
import type { Layer } from '../../../../../core/document/schema';
import { WaveHand } from '../../../../strings/WaveHand';
import { Para } from '../../../../ui/Words';
import { askDesk } from '../../../../workers/askOwn';
import type { Wave } from '../../../../workers/soundDesk';
import { words } from '../../../../words/sounds';
import {
  asHeard,
  corners,
  envelopeLine,
  onWave,
  withCorner,
  withField,
  type ChangeLayer,
} from './layerChange';

/** What the desk answers to a question, told by its text; null while it is not there, undefined where a sample is missing. */
const useAsked = (text: string | null, ask: () => Promise<Wave | null>): Wave | null | undefined => {
  const [answer, setAnswer] = useState<{ text: string | null; wave: Wave | undefined } | null>(null);
  useEffect(() => {
    let wanted = true;
    if (text !== null) void ask().then((found) => wanted && setAnswer({ text, wave: found ?? undefined }));
    return () => {
      wanted = false;
    };
    // What is asked follows from its text.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [text]);
  return answer?.text === text ? answer?.wave : null;
};

const NO_SAMPLE = { id: null, file: '' };

/** Where a layer begins, ends and has its attack, and its envelope, on its wave. */
export const LayerWave = ({
  layer,
  name,
  onChange,
}: {
  layer: Layer;
  name: string;
  onChange: ChangeLayer;
}) => {
  const { id, file } = 'sample' in layer.source ? layer.source.sample : NO_SAMPLE;
  const wave = useAsked(id, () => askDesk<Wave | null>((far) => far.wave(id ?? '') as Promise<Wave | null>));
  // Turned round, tuned or enveloped its attack is elsewhere: it is told of the layer as it is heard.
  const heard = useAsked(layer.lands === undefined ? JSON.stringify(layer) : null, () =>
    askDesk<Wave | null>((far) => far.shaped(layer) as Promise<Wave | null>),
  );
  if (id === null) return null;
  if (wave === undefined) return <Para>{words.isMissing(file)}</Para>;
  if (!wave) return null;
  const [start, end] = [layer.start ?? 0, Math.min(layer.end ?? wave.seconds, wave.seconds)];
  const lands = layer.lands ?? heard?.attack ?? Math.max(0, wave.attack - start);
  const envelope = corners(layer);
  const place = (ms: number) => onWave(layer, end, ms / 1000);
  const move = (place: number, to: number, gesture: string) => {
    if (place === 0)
      onChange(withField(layer, 'start', Math.max(0, Math.min(to, end - 0.005)) || undefined), gesture);
    else if (place === 1)
      onChange(
        withField(layer, 'end', to >= wave.seconds ? undefined : Math.max(start + 0.005, to)),
        gesture,
      );
    else if (place === 2) onChange(withField(layer, 'lands', asHeard(layer, end, to)), gesture);
    else onChange(withCorner(layer, envelope[place - 3]!.key, 1000 * asHeard(layer, end, to)), gesture);
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
          { name: words.ofLayer(words.attackMark, name), at: onWave(layer, end, lands), low: true },
          ...envelope.map(({ key, ms }) => ({
            name: words.ofLayer(words.corner[key], name),
            at: place(ms),
            corner: true,
          })),
        ]}
        line={envelopeLine(layer).map(([ms, level]): [number, number] => [place(ms), level])}
        onMove={move}
      />
      <Para quiet>{words.attackAt(words.ms(lands * 1000))}</Para>
    </>
  );
};
