import { scaleNames } from '../../core/make/scales';
import { ROOTS } from '../../core/make/tunedLane';
import { words } from '../words/tuned';
import { Choice } from './Choice';

const SCALES = scaleNames();
const SEMITONES = '';

interface ScaleChoiceProps {
  /** A root and a scale, such as "C minor"; empty are all notes. */
  value: string;
  /** Of what it is the scale. */
  of: string;
  onChange: (scale: string) => void;
}

/** All notes, or those of a scale. */
export const ScaleChoice = ({ value, of, onChange }: ScaleChoiceProps) => {
  const [root, ...rest] = (value || 'C').split(' ') as [string, ...string[]];
  const scale = rest.join(' ');
  return (
    <>
      <Choice
        label={words.scaleOf(of)}
        short={words.scale}
        value={scale}
        options={[
          { value: SEMITONES, name: words.semitones },
          ...SCALES.map((name) => ({ value: name, name })),
        ]}
        onChange={(next) => onChange(next === SEMITONES ? '' : `${root} ${next}`)}
      />
      {scale ? (
        <Choice
          label={words.rootOf(of)}
          short={words.root}
          value={root}
          options={ROOTS.map((one) => ({ value: one, name: one }))}
          onChange={(next) => onChange(`${next} ${scale}`)}
        />
      ) : null}
    </>
  );
};
