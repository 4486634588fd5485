import { useEffect, useState } from 'react';
import type { Compared } from '../../../core/feel/compare';
import { byChance } from '../../../core/feel/compare';
import { store } from '../../state/session';
import { viewChanged } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';

const against = (b: { name: string } | null, which: Compared): string =>
  which === 'b' && b ? `“${b.name}”` : 'without any feel';

interface Trial {
  /** Whether the first of the two is the feel. */
  feelFirst: boolean;
  hearing: 0 | 1;
  right: number;
  of: number;
  /** What was said about the last answer. */
  said: string;
}

const coin = (): boolean => crypto.getRandomValues(new Uint8Array(1))[0]! < 128;

const listen = (trial: Trial, which: Compared): void => {
  const feel = trial.hearing === 0 ? trial.feelFirst : !trial.feelFirst;
  store.dispatch(viewChanged({ compare: feel ? null : which, blind: true }));
};

const verdict = ({ right, of }: Trial): string => {
  const luck = Math.round(byChance(right, of) * 100);
  if (of < 5) return 'Five answers or more begin to tell.';
  return luck <= 5
    ? `By guessing one is right so often in ${luck < 1 ? 'fewer than 1' : luck} of 100 tests: you hear it.`
    : `By guessing one is right so often in ${luck} of 100 tests: not sure yet that you hear it.`;
};

/** The two in random order; which one is the feel is for the ear to say. */
const BlindTest = ({ which }: { which: Compared }) => {
  const act = useDo();
  const playing = useApp((state) => state.view.playing);
  const [trial, setTrial] = useState<Trial | null>(null);
  useEffect(() => () => void store.dispatch(viewChanged({ compare: null, blind: false })), []);

  const begin = (before: Trial | null, said: string) => {
    const next: Trial = { right: 0, of: 0, ...before, feelFirst: coin(), hearing: 0, said };
    setTrial(next);
    listen(next, which);
  };
  const hear = (hearing: 0 | 1) => {
    const next = { ...trial!, hearing };
    setTrial(next);
    listen(next, which);
  };
  const answer = (first: boolean) => {
    const right = first === trial!.feelFirst;
    const said = right ? 'Right.' : `No: it was the ${trial!.feelFirst ? 'first' : 'second'}.`;
    begin({ ...trial!, right: trial!.right + (right ? 1 : 0), of: trial!.of + 1 }, said);
  };
  const end = () => {
    setTrial(null);
    act(viewChanged({ compare: null, blind: false }));
  };

  if (!trial)
    return (
      <fieldset>
        <legend>Blind test</legend>
        <p className="quiet">
          Two ways to hear the pattern, in random order: say which one has the feel. The strings are hidden
          meanwhile.
        </p>
        <Chip onPress={() => begin(null, '')}>Begin a blind test</Chip>
      </fieldset>
    );
  return (
    <fieldset className="blind">
      <legend>Blind test</legend>
      {playing ? null : <p className="quiet">Press play to hear them.</p>}
      <div className="chips" role="group" aria-label="Listen to">
        <Chip pressed={trial.hearing === 0} onPress={() => hear(0)}>
          Hear the first
        </Chip>
        <Chip pressed={trial.hearing === 1} onPress={() => hear(1)}>
          Hear the second
        </Chip>
      </div>
      <div className="chips" role="group" aria-label="Your answer">
        <Chip onPress={() => answer(true)}>The first has the feel</Chip>
        <Chip onPress={() => answer(false)}>The second has it</Chip>
      </div>
      <p aria-live="polite">
        {trial.of ? `${trial.said} Right ${trial.right} of ${trial.of}. ${verdict(trial)}` : 'No answer yet.'}
      </p>
      <Chip onPress={end}>End the test</Chip>
    </fieldset>
  );
};

/** The pattern with its feel and without it, or with another one, equally strong. */
export const ComparePage = () => {
  const act = useDo();
  const b = useApp((state) => state.view.b);
  const compare = useApp((state) => state.view.compare);
  const [against_, setAgainst] = useState<Compared>('bare');
  const which: Compared = against_ === 'b' && !b ? 'bare' : against_;
  const hold = (on: boolean) => act(viewChanged({ compare: on ? which : null }));
  return (
    <>
      <fieldset>
        <legend>Compare with</legend>
        <div className="chips">
          <Chip pressed={which === 'bare'} onPress={() => setAgainst('bare')}>
            Without feel
          </Chip>
          <Chip pressed={which === 'b'} disabled={!b} onPress={() => setAgainst('b')}>
            {b ? `B, “${b.name}”` : 'B: none chosen'}
          </Chip>
        </div>
        <button
          type="button"
          className="hold"
          aria-pressed={compare !== null}
          onPointerDown={() => hold(true)}
          onPointerUp={() => hold(false)}
          onPointerLeave={() => hold(false)}
          onPointerCancel={() => hold(false)}
          onKeyDown={(event) => (event.key === ' ' || event.key === 'Enter') && hold(true)}
          onKeyUp={() => hold(false)}
          onBlur={() => hold(false)}
        >
          {`Hold to hear it ${which === 'b' ? `as ${against(b, which)}` : against(b, which)}`}
        </button>
        <p className="quiet">
          Both are made equally strong, so that the louder one is not taken for the better. Holding C does the
          same.
        </p>
      </fieldset>
      <BlindTest key={which} which={which} />
    </>
  );
};
