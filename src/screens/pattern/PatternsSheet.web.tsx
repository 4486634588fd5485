import { nanoid } from '@reduxjs/toolkit';
import { use, useState } from 'react';
import { MOST, PIGMENTS } from '../../../core/beat/choices';
import type { Beat, Pattern } from '../../../core/beat/schema';
import type { PatternEdit } from '../../../core/pattern/edits';
import { BARS, BEATS } from '../../../core/pattern/patterns';
import { PATTERN_PRESETS } from '../../../core/pattern/presets';
import { meterText } from '../../../core/beat/meter';
import { beatEdited, patternsEdited, undone } from '../../state/doc';
import { store } from '../../state/session';
import { noticed, viewChanged } from '../../state/slices';
import { selectBeat, selectPattern, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { PlayContext } from '../../ui/playing';
import { SwitchWhen } from '../../ui/SwitchWhen';
import { Sheet } from '../../ui/Sheet';
import { SortableLater } from '../../ui/SortableLater';
import { BeadPicture } from '../../strings/BeadPicture';
import './drawer/drawer.css';

const UNITS = [2, 4, 8, 16] as const;

/** A whole rhythm, tried by ear: each try takes the place of the one before it until one is taken. */
const Presets = ({ patternId }: { patternId: string }) => {
  const act = useDo();
  const beat = useApp(selectBeat)!;
  const playing = useApp((state) => state.view.playing);
  const togglePlay = use(PlayContext);
  const [tried, setTried] = useState<{ presetId: string; beat: Beat } | null>(null);
  // Whatever else is changed takes what was tried with it.
  const open = tried?.beat === beat ? tried : null;
  const attempt = (presetId: string) => {
    if (open) act(undone());
    if (presetId) act(beatEdited({ edit: { edit: 'patternPreset', args: { patternId, presetId } } }));
    setTried(presetId ? { presetId, beat: store.getState().doc.beat! } : null);
  };
  return (
    <>
      <Choice
        label="Preset for the whole pattern"
        short="Preset"
        value={open?.presetId ?? ''}
        options={[
          { value: '', name: open ? 'what was there' : 'Choose a rhythm' },
          ...PATTERN_PRESETS.map(({ id, name }) => ({ value: id, name })),
        ]}
        onChange={attempt}
      />
      {open ? (
        <div className="chips">
          <Chip pressed={playing} onPress={togglePlay}>
            {playing ? 'Stop' : 'Hear it'}
          </Chip>
          <Chip onPress={() => setTried(null)}>Take it</Chip>
          <Chip onPress={() => attempt('')}>Put back what was there</Chip>
        </div>
      ) : null}
    </>
  );
};

/** Meter, length, name and colour of the pattern shown. */
const Shown = ({ pattern, count }: { pattern: Pattern; count: number }) => {
  const act = useDo();
  const edit = (one: PatternEdit, gesture?: string) =>
    act(patternsEdited({ patternIds: [pattern.id], edit: one, ...(gesture && { gesture }) }));
  const held = (asked: number, { least, most }: { least: number; most: number }, what: string) => {
    const kept = Math.round(Math.min(most, Math.max(least, asked)));
    if (kept !== Math.round(asked))
      act(
        noticed({
          text: `${what} go from ${least} to ${most}; ${asked} was held to ${kept}.`,
          subject: what,
        }),
      );
    return kept;
  };
  return (
    <fieldset>
      <legend>{pattern.name}</legend>
      <label className="choice-field">
        <span>Name</span>
        <input
          key={pattern.id + pattern.name}
          type="text"
          aria-label="Name of the pattern"
          defaultValue={pattern.name}
          maxLength={80}
          onBlur={(event) =>
            event.target.value.trim() !== pattern.name &&
            edit({ edit: 'rename', args: { name: event.target.value } })
          }
          onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
        />
      </label>
      <div className="figures">
        <NumberField
          label="Bars"
          value={pattern.bars}
          {...BARS}
          under="bars"
          width={56}
          onChange={(asked, gesture) =>
            edit({ edit: 'setBars', args: { bars: held(asked, BARS, 'Bars') } }, gesture)
          }
        />
        <NumberField
          label="Beats of a bar"
          value={pattern.meter.beats}
          {...BEATS}
          under="beats"
          width={56}
          onChange={(asked, gesture) =>
            edit(
              { edit: 'setMeter', args: { meter: { ...pattern.meter, beats: held(asked, BEATS, 'Beats') } } },
              gesture,
            )
          }
        />
        <Chip onPress={() => edit({ edit: 'repeatBars', args: {} })}>Twice as long, the same twice</Chip>
      </div>
      <Choice
        label="Note value of a beat"
        short="Beat is"
        value={String(pattern.meter.unit)}
        options={UNITS.map((unit) => ({ value: String(unit), name: `1/${unit}` }))}
        onChange={(unit) =>
          edit({
            edit: 'setMeter',
            args: { meter: { ...pattern.meter, unit: Number(unit) as (typeof UNITS)[number] } },
          })
        }
      />
      <Choice
        label="Colour of the pattern"
        short="Colour"
        value={pattern.pigment ?? 'walnut'}
        options={PIGMENTS.map((value) => ({ value, name: value }))}
        onChange={(pigment) => edit({ edit: 'recolour', args: { pigment } })}
      />
      <Presets key={pattern.id} patternId={pattern.id} />
      <div className="chips">
        <Chip
          tone="danger"
          disabled={count < 2}
          onPress={() => act(beatEdited({ edit: { edit: 'removePattern', args: { id: pattern.id } } }))}
        >
          Delete pattern
        </Chip>
      </div>
    </fieldset>
  );
};

/** All patterns of the beat: choosing, making, ordering. */
export const PatternsSheet = ({ onClose }: { onClose: () => void }) => {
  const beat = useApp(selectBeat)!;
  const shown = useApp(selectPattern)!;
  const { also, switchAt } = useApp((state) => state.view);
  const [several, setSeveral] = useState(also.length > 0);
  const act = useDo();
  const full = beat.patterns.length >= MOST.patterns;
  const show = (id: string) => act(viewChanged({ patternId: id, spots: [], cursor: null }));
  const make = (edit: 'addPattern' | 'duplicatePattern') => {
    const id = nanoid();
    act(
      beatEdited({
        edit:
          edit === 'addPattern'
            ? { edit, args: { id, like: shown } }
            : { edit, args: { id, from: shown.id } },
      }),
    );
    show(id);
  };
  const flip = (id: string) =>
    act(viewChanged({ also: also.includes(id) ? also.filter((one) => one !== id) : [...also, id] }));
  return (
    <Sheet title="Patterns" open onClose={onClose}>
      <div className="patterns drawer-like">
        <div className="chips">
          <Chip disabled={full} onPress={() => make('addPattern')}>
            New pattern
          </Chip>
          <Chip disabled={full} onPress={() => make('duplicatePattern')}>{`Variation of ${shown.name}`}</Chip>
          <Chip
            label={`Set ${shown.name} aside in the tray`}
            onPress={() => {
              act(
                beatEdited({
                  edit: { edit: 'toTray', args: { id: nanoid(), name: shown.name, patternId: shown.id } },
                }),
              );
              act(noticed({ text: `${shown.name} lies in the tray of the Song screen.`, subject: 'tray' }));
            }}
          >
            Into the tray
          </Chip>
          <Chip
            pressed={several}
            onPress={() => {
              setSeveral(!several);
              act(viewChanged({ also: [] }));
            }}
          >
            Edit several at once
          </Chip>
        </div>
        {full ? <p className="quiet">{`A beat holds at most ${MOST.patterns} patterns.`}</p> : null}
        <SortableLater
          label="Patterns in their order"
          items={beat.patterns.map((pattern, at) => ({
            id: pattern.id,
            name: pattern.name,
            row: (
              <>
                {several ? (
                  <label className="tick">
                    <input
                      type="checkbox"
                      aria-label={`Edit ${pattern.name} too`}
                      checked={pattern.id === shown.id || also.includes(pattern.id)}
                      disabled={pattern.id === shown.id}
                      onChange={() => flip(pattern.id)}
                    />
                  </label>
                ) : null}
                <button
                  type="button"
                  className="pattern-row"
                  aria-current={pattern.id === shown.id}
                  aria-label={`Show ${pattern.name}`}
                  style={{ borderLeftColor: `var(--${pattern.pigment ?? 'walnut'})` }}
                  onClick={() => show(pattern.id)}
                >
                  <BeadPicture pattern={pattern} lanes={beat.lanes} width={96} height={44} />
                  <span>
                    <b>{pattern.name}</b>
                    <small>
                      {`${meterText(pattern.meter)}, ${pattern.bars} bar${pattern.bars === 1 ? '' : 's'}`}
                      {pattern.parent
                        ? `, varies ${beat.patterns.find(({ id }) => id === pattern.parent)?.name ?? 'a pattern'}`
                        : ''}
                    </small>
                  </span>
                  {at < 9 ? <kbd className="figure">{`⇧${at + 1}`}</kbd> : null}
                </button>
              </>
            ),
          }))}
          onMove={(id, to) => act(beatEdited({ edit: { edit: 'movePattern', args: { id, to } } }))}
        />
        <SwitchWhen value={switchAt} onChange={(value) => act(viewChanged({ switchAt: value }))} />
        <Shown pattern={shown} count={beat.patterns.length} />
      </div>
    </Sheet>
  );
};
