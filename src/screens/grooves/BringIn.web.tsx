import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import { INSTRUMENTS, type InstrumentId } from '../../../core/beat/instruments';
import { bringIn, type Bring } from '../../../core/groove/bring';
import { fittedBars, MOST_BARS, TIMES, TIMES_NAMES, type Times } from '../../../core/groove/fit';
import type { Groove } from '../../../core/groove/groove';
import { groovePerformance } from '../../../core/groove/perform';
import { findGrid, takeTemplate } from '../../../core/feel/takeTemplate';
import { beatEdited } from '../../state/doc';
import { store } from '../../state/session';
import { noticed, viewChanged } from '../../state/slices';
import { selectBeat, selectPattern, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { setFit, stopHearing, useHeard } from './audition';
import { grooveAside } from './tray';
import { barsWords } from './words';

const BARS = Array.from({ length: MOST_BARS }, (_, at) => at + 1);

/** At which speed and length. */
const FitChoice = ({ groove }: { groove: Groove }) => {
  const { fit } = useHeard();
  const own = fittedBars(groove, { ...fit, bars: null });
  return (
    <div className="choices">
      <Choice
        label="Speed"
        short="Speed"
        value={fit.times}
        options={TIMES.map((value) => ({ value, name: TIMES_NAMES[value] }))}
        onChange={(value: Times) => setFit({ times: value })}
      />
      <Choice
        label="Length"
        short="Length"
        value={fit.bars === null ? 'own' : String(fit.bars)}
        options={[
          { value: 'own', name: `As it is: ${barsWords(own)}` },
          ...BARS.map((bars) => ({ value: String(bars), name: barsWords(bars) })),
        ]}
        onChange={(value) => setFit({ bars: value === 'own' ? null : Number(value) })}
      />
    </div>
  );
};

const takeFeel = (groove: Groove): string => {
  const performance = groovePerformance(groove);
  const shape = takeTemplate(groove.name.slice(0, 80), performance, {
    grid: findGrid(performance),
    length: performance.length,
  });
  if (!shape) return 'It has too few hits to take a feel from.';
  const template = { ...shape, id: nanoid(), about: `Taken from the groove “${groove.name}”.`.slice(0, 200) };
  store.dispatch(beatEdited({ edit: { edit: 'keepTemplate', args: { template } } }));
  return `Its feel is now a template of your beat: “${shape.name}”. Choose it on the Feel screen.`;
};

interface BringInProps {
  groove: Groove;
  /** As it is heard: at its speed and length, with its voices. */
  now: Groove;
}

/** The ways into the beat. */
export const BringIn = ({ groove, now }: BringInProps) => {
  const beat = useApp(selectBeat);
  const pattern = useApp(selectPattern);
  const act = useDo();
  const all = [...new Set(now.lanes.map(({ instrument }) => instrument))];
  const [out, setOut] = useState<ReadonlySet<InstrumentId>>(new Set());
  if (!beat || !pattern) return null;
  const chosen = all.filter((id) => !out.has(id));

  const say = (text: string, at: number) =>
    act(
      noticed({
        text,
        subject: 'brought',
        action: { label: 'Take it back', does: { kind: 'undo', at } },
      }),
    );
  const bring = (how: Bring, done: string) => {
    const { left } = bringIn(beat, now, how);
    const at = store.getState().doc.past.length + 1;
    stopHearing();
    act(beatEdited({ edit: { edit: 'bringGroove', args: { groove: now, bring: how } } }));
    if (how.how === 'new') act(viewChanged({ patternId: how.id }));
    say(left.length ? `${done} No lane was free for ${left.join(', ')}.` : done, at);
  };
  const turn = (id: InstrumentId) => {
    const next = new Set(out);
    if (!next.delete(id)) next.add(id);
    setOut(next);
  };
  const name = now.name.slice(0, 80);
  return (
    <>
      <FitChoice groove={groove} />
      <div className="bring-way">
        <Chip
          onPress={() =>
            bring({ how: 'new', id: nanoid(), name }, `“${name}” is a new pattern of your beat.`)
          }
        >
          As a new pattern
        </Chip>
        <p className="quiet">{`${barsWords(now.bars)}, beside the patterns there are.`}</p>
      </div>
      <div className="bring-way">
        <Chip
          onPress={() =>
            bring(
              { how: 'replace', patternId: pattern.id },
              `“${name}” took the place of pattern ${pattern.name}.`,
            )
          }
        >
          {`Replace pattern ${pattern.name}`}
        </Chip>
        <p className="quiet">{`The pattern becomes ${barsWords(now.bars)} long; undo brings it back.`}</p>
      </div>
      <fieldset className="bring-way over">
        <legend>{`Lay over pattern ${pattern.name}: these drums`}</legend>
        <div className="chips">
          {all.map((id) => (
            <Chip key={id} pressed={!out.has(id)} onPress={() => turn(id)}>
              {INSTRUMENTS[id].name}
            </Chip>
          ))}
        </div>
        <Chip
          disabled={!chosen.length}
          onPress={() =>
            bring(
              { how: 'over', patternId: pattern.id, instruments: chosen },
              `${chosen.map((id) => INSTRUMENTS[id].name).join(', ')} of “${name}” lie over pattern ${pattern.name}.`,
            )
          }
        >
          Lay over
        </Chip>
      </fieldset>
      <div className="bring-way">
        <Chip onPress={() => grooveAside(now)}>Into the tray</Chip>
        <p className="quiet">Set aside for the song, as a pattern of its own.</p>
      </div>
      <div className="bring-way">
        <Chip
          onPress={() => {
            const at = store.getState().doc.past.length + 1;
            say(takeFeel(now), at);
          }}
        >
          Its feel as a template
        </Chip>
        <p className="quiet">Only how it is played, for any pattern of the beat.</p>
      </div>
    </>
  );
};
