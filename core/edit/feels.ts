import { MOST } from '../document/choices';
import { setPattern, feelOf, patternOf } from '../document/defaults';
import type { Feel, Follow, NamedFeel, PlainFeel, Template } from '../document/feelSchema';
import { numbered } from '../document/numbered';
import type { Beat } from '../document/schema';
import { changeFeel } from './beatEdits';

/** Feels and templates kept with a beat. An edit that cannot be made gives back what it was given. */

/**
 * Gives a pattern a feel of its own, which begins as the beat's, or lets it follow the beat's again.
 *
 * @example ownFeel(beat, 'a', true).patterns[0]!.feel!.base // "swing"
 */
export const ownFeel = (beat: Beat, patternId: string, own: boolean): Beat => {
  const pattern = patternOf(beat, patternId);
  if (own) return pattern.feel ? beat : setPattern(beat, { ...pattern, feel: beat.feel });
  const { feel, ...following } = pattern;
  return feel ? setPattern(beat, following) : beat;
};

/**
 * Puts a feel in the place of the one that a pattern is played with.
 *
 * @example useFeel(beat, 'a', newFeel({ percent: 60, grid: '1/16' })).feel.swing.percent // 60
 */
export const useFeel = (beat: Beat, patternId: string, feel: Feel): Beat =>
  changeFeel(beat, patternId, () => feel);

/**
 * Keeps the feel of a pattern under a name; one that is taken gets a number.
 *
 * @example keepFeel(beat, 'f', 'Late', 'a').feels.map(({ name }) => name) // ["Late"]
 */
export const keepFeel = (beat: Beat, id: string, name: string, patternId: string): Beat =>
  beat.feels.length >= MOST.feels || !name.trim()
    ? beat
    : {
        ...beat,
        feels: [
          ...beat.feels,
          {
            id,
            name: numbered(
              name,
              beat.feels.map((one) => one.name),
            ),
            feel: feelOf(beat, patternOf(beat, patternId)),
          },
        ],
      };

/**
 * Changes a kept feel, or its name.
 *
 * @example changeKeptFeel(keepFeel(beat, 'f', 'Late', 'a'), 'f', { name: 'Later' }).feels[0]!.name // "Later"
 */
export const changeKeptFeel = (beat: Beat, id: string, change: Partial<Omit<NamedFeel, 'id'>>): Beat => ({
  ...beat,
  feels: beat.feels.map((one) => (one.id === id ? { ...one, ...change } : one)),
});

/**
 * Takes a kept feel off the beat; patterns that were given it keep it.
 *
 * @example dropFeel(keepFeel(beat, 'f', 'Late', 'a'), 'f').feels // []
 */
export const dropFeel = (beat: Beat, id: string): Beat => ({
  ...beat,
  feels: beat.feels.filter((one) => one.id !== id),
});

/** Sets what a feel is blended with, or takes it away. @example setBlend(beat, 'a', null).feel.blend // undefined */
export const setBlend = (beat: Beat, patternId: string, blend: Feel['blend'] | null): Beat =>
  changeFeel(beat, patternId, ({ blend: _, ...feel }) => (blend ? { ...feel, blend } : feel));

/**
 * Adds a template to those of the beat, or puts it in the place of the one with its id. A name that is taken gets a number.
 *
 * @example keepTemplate(beat, { id: 't', ...shape }).templates.length // 1
 */
export const keepTemplate = (beat: Beat, given: Template): Beat => {
  const others = beat.templates.filter(({ id }) => id !== given.id);
  const template = {
    ...given,
    name: numbered(
      given.name,
      others.map(({ name }) => name),
    ),
  };
  const known = beat.templates.some(({ id }) => id === template.id);
  if (!known)
    return beat.templates.length >= MOST.templates
      ? beat
      : { ...beat, templates: [...beat.templates, template] };
  return followed(
    { ...beat, templates: beat.templates.map((one) => (one.id === template.id ? template : one)) },
    template,
  );
};

/** Lanes that follow a template follow its edits. */
const followed = (beat: Beat, template: Template): Beat => {
  const follow = (one: Follow): Follow =>
    one.template?.id === template.id && one.template !== template ? { ...one, template } : one;
  const plain = <F extends PlainFeel>(feel: F): F => {
    const lanes = Object.entries(feel.lanes).map(([id, lane]) =>
      lane.template ? [id, { ...lane, template: follow(lane.template) }] : [id, lane],
    );
    return { ...feel, template: follow(feel.template), lanes: Object.fromEntries(lanes) as F['lanes'] };
  };
  const whole = ({ blend, ...feel }: Feel): Feel => ({
    ...plain(feel),
    ...(blend && { blend: { ...blend, with: plain(blend.with) } }),
  });
  const sections = beat.song.sections.map((section) =>
    section.feel ? { ...section, feel: whole(section.feel) } : section,
  );
  return {
    ...beat,
    feel: whole(beat.feel),
    patterns: beat.patterns.map((one) => (one.feel ? { ...one, feel: whole(one.feel) } : one)),
    ...(sections.length && { song: { ...beat.song, sections } }),
  };
};

/**
 * Takes a template off the beat; feels that use it keep it.
 *
 * @example dropTemplate(keepTemplate(beat, { id: 't', ...shape }), 't').templates // []
 */
export const dropTemplate = (beat: Beat, id: string): Beat => ({
  ...beat,
  templates: beat.templates.filter((one) => one.id !== id),
});

/** A feel without what it is blended with. @example plainOf(beat.feel).base // "swing" */
export const plainOf = ({ blend: _, ...feel }: Feel): PlainFeel => feel;
