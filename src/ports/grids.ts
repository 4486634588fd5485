import { nanoid } from '@reduxjs/toolkit';
import { lanePatternOf, stepsOf } from '../../core/document/defaults';
import { gridTicks } from '../../core/document/grid';
import { swingPercentAt } from '../../core/feel/swing';
import { padAddress, padNumber, placeOfNote, type GridLayout } from '../../core/ports/gridLayout';
import {
  GRID_AT_FIRST,
  gridLights,
  gridPress,
  type GridAction,
  type GridBeat,
  type GridView,
} from '../../core/ports/gridModel';
import type { MidiBytes } from '../../core/ports/midiStream';
import type { Out } from '../../core/ports/outbox';
import type { Ms, Ticks } from '../../core/units';
import { beatEdited, laneChanged, swingSet } from '../store/doc';
import { setStepShown } from '../store/editing';
import { patternShown } from '../store/focus';
import { selectBeat, selectFeel, selectPattern, type RootState, type Store } from '../store/store';

/** Surfaces of lit pads: what they show of the beat that is open, and what is pressed on them. */

/** What of the beat a surface shows. @param at where play stands in the pattern, in ticks */
export const gridBeatOf = (state: RootState, at: Ticks | null): GridBeat | null => {
  const [beat, pattern, feel] = [selectBeat(state), selectPattern(state), selectFeel(state)];
  if (!beat || !pattern) return null;
  const swings = feel?.base === 'swing' && !feel.off.includes('base');
  return {
    lanes: beat.lanes.map(({ id, mute, solo }) => {
      const part = lanePatternOf(pattern, id);
      const steps = Array.from({ length: stepsOf(part, pattern) }, () => 0);
      for (const { step, velocity } of part.hits)
        if (step < steps.length) steps[step] = Math.max(steps[step]!, velocity);
      return { id, mute, solo, steps, ticks: gridTicks(part.grid) };
    }),
    patterns: beat.patterns,
    patternId: pattern.id,
    swing: swings ? swingPercentAt(feel.swing, beat.tempo) : 50,
    at,
    accent: beat.levels.accent - 8,
    soft: beat.levels.ghost + 16,
  };
};

/** Does what a press asks for. */
const act = (store: Store, action: GridAction): void => {
  const { transport } = store.getState();
  const patternId = selectPattern(store.getState())!.id;
  switch (action.do) {
    case 'step':
      setStepShown(store, {
        laneId: action.laneId,
        step: action.step,
        on: action.on,
        ...(action.on && { velocity: action.velocity }),
      });
      return;
    case 'mute':
    case 'solo':
      store.dispatch(laneChanged({ laneId: action.laneId, change: { [action.do]: action.on } }));
      return;
    case 'swing':
      store.dispatch(swingSet({ patternId, change: { percent: action.percent } }));
      return;
    case 'pattern':
      store.dispatch(patternShown(action.patternId, transport.switchAt));
      return;
    case 'duplicate':
      store.dispatch(
        beatEdited({ edit: { edit: 'duplicatePattern', args: { id: nanoid(), from: action.patternId } } }),
      );
  }
};

interface Surface {
  layout: GridLayout;
  view: GridView;
  /** Lights leave at once, apart from the notes of lanes: a stop lets go of those alone. */
  send: Out['send'];
  /** What each note was last lit with. */
  lit: Map<number, number>;
}

interface GridsParts {
  store: Store;
  now: () => Ms;
  playedTick: () => Ticks | null;
}

export const createGrids = ({ store, now, playedTick }: GridsParts) => {
  const surfaces = new Map<string, Surface>();

  const draw = (): void => {
    if (!surfaces.size) return;
    const state = store.getState();
    const beat = gridBeatOf(state, state.transport.playing ? playedTick() : null);
    if (!beat) return;
    for (const { layout, view, send, lit } of surfaces.values()) {
      const lights = gridLights(beat, view, layout);
      layout.notes.forEach((row, y) =>
        row.forEach((note, x) => {
          if (note === null) return;
          const value = layout.lights[lights[y]![x]!] ?? 0;
          if (lit.get(note) === value) return;
          lit.set(note, value);
          const to = padAddress(layout, note);
          send([0x90 | (to.channel - 1), to.note, value], now());
        }),
      );
    }
  };

  return {
    /** The surfaces that there are now, with how each is spoken to. */
    set: (all: readonly { name: string; layout: GridLayout; send: Out['send'] }[]): void => {
      for (const name of surfaces.keys()) if (!all.some((one) => one.name === name)) surfaces.delete(name);
      for (const { name, layout, send } of all) {
        const there = surfaces.get(name);
        if (there?.send === send && JSON.stringify(there.layout) === JSON.stringify(layout)) continue;
        surfaces.set(name, { layout, view: there?.view ?? GRID_AT_FIRST, send, lit: new Map() });
      }
      draw();
    },
    /** @returns whether the message was a press on a surface */
    take: (name: string, bytes: MidiBytes): boolean => {
      const surface = surfaces.get(name);
      if (!surface) return false;
      const [status = 0, note = 0, velocity = 0] = bytes;
      const { layout } = surface;
      const pad = padNumber(layout, (status & 0x0f) + 1, note);
      if ((status & 0xf0) !== 0x90 || !velocity || pad === null) return true;
      const place = placeOfNote(layout, pad);
      const beat = gridBeatOf(store.getState(), null);
      if (!place || !beat) return true;
      const { view, action } = gridPress(beat, surface.view, layout, place.x, place.y, velocity);
      surface.view = view;
      if (action) act(store, action);
      draw();
      return true;
    },
    draw,
  };
};
