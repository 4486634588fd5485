import { Figure } from '../../ui/Figure';
import { Group, Chips, Figures } from '../../ui/Layout';
import { Para, Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { PIGMENTS, SONG, SWING } from '../../../core/document/choices';
import type { Beat, Place, Section } from '../../../core/document/schema';
import { bounds, heldToRange, RANGES } from '../../../core/document/ranges';
import { patternOfEntry, sectionBars } from '../../../core/play/timeline';
import { type SectionChange } from '../../../core/edit/song';
import { SECTION_NAMES } from '../../../core/document/sectionNames';
import { TEMPO } from '../../../core/units';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { NameInput } from '../../ui/NameInput';
import { NumberField } from '../../ui/NumberField';
import { PERCENT } from '../../ui/figures';
import { Range } from '../../ui/Range';
import { editSong } from './edit';
import { Entries } from './Entries';
import { FillOffers } from './FillOffers';
import { useClamped } from '../../store/useClamped';
import { words } from '../../words/song';

interface OnSection {
  beat: Beat;
  section: Section;
}

const change = (id: string, args: SectionChange, gesture?: string) =>
  editSong({ edit: 'changeSection', args: { id, change: args } }, gesture);

const Naming = ({ section }: OnSection) => (
  <View style={styles.songNaming}>
    <NameInput
      key={section.id}
      label={words.nameOfTheSection}
      value={section.name}
      onName={(name) => change(section.id, { name })}
    />
    <Choice
      label={words.usualNameOfTheSection}
      short={words.usually}
      value={SECTION_NAMES.find((name) => name === section.name) ?? ''}
      options={[
        { value: '', name: words.aNameOfItsOwn },
        ...SECTION_NAMES.map((name) => ({ value: name, name })),
      ]}
      onChange={(name) => name && change(section.id, { name })}
    />
    <Choice
      label={words.colourOfTheSection}
      short={words.colour}
      value={section.pigment}
      options={PIGMENTS.map((value) => ({ value, name: value }))}
      onChange={(pigment) => change(section.id, { pigment })}
    />
  </View>
);

const Ending = ({ beat, section }: OnSection) => {
  const { fill } = section;
  return (
    <Group title={words.aFillAtItsEnd}>
      <Choice
        label={words.fillOfSection(section.name)}
        short={words.fill}
        value={fill ? (patternOfEntry(beat, fill)?.id ?? 'gone') : ''}
        options={[
          { value: '', name: words.none },
          ...(fill && !patternOfEntry(beat, fill) ? [{ value: 'gone', name: words.deletedNotPlayed }] : []),
          ...beat.patterns.map(({ id, name }) => ({ value: id, name })),
        ]}
        onChange={(patternId) => {
          if (patternId === 'gone') return;
          change(section.id, { fill: patternId ? { patternId, over: fill?.over ?? 'bar' } : null });
        }}
      />
      {fill ? (
        <Choice
          label={words.theFillTakesThePlace}
          short={words.inPlaceOf}
          value={fill.over}
          options={[
            { value: 'bar', name: words.theLastBar },
            { value: 'beat', name: words.theLastBeat },
          ]}
          onChange={(over) => change(section.id, { fill: { ...fill, over } })}
        />
      ) : null}
      <FillOffers beat={beat} section={section} />
    </Group>
  );
};

const Silent = ({ beat, section }: OnSection) => {
  const turn = (id: string) =>
    change(section.id, {
      silent: section.silent.includes(id)
        ? section.silent.filter((one) => one !== id)
        : [...section.silent, id],
    });
  return (
    <Group title={words.silentInIt}>
      <Chips>
        {beat.lanes.map(({ id, name }) => (
          <Chip key={id} pressed={section.silent.includes(id)} onPress={() => turn(id)}>
            {name}
          </Chip>
        ))}
      </Chips>
    </Group>
  );
};

const percent = (value: number): string => `${Math.round(value * 100)} %`;

/** Whose feel a section is played with: none of its own, or that of the beat, a pattern, or one that was kept. */
const feelChoices = (beat: Beat) => [
  { id: 'beat', name: words.theBeat, feel: beat.feel },
  ...beat.patterns.flatMap(({ id, name, feel }) =>
    feel ? [{ id: `p ${id}`, name: words.patternName(name), feel }] : [],
  ),
  ...beat.feels.map(({ id, name, feel }) => ({ id: `k ${id}`, name: `“${name}”`, feel })),
];

const OwnFeel = ({ beat, section }: OnSection) => {
  const choices = feelChoices(beat);
  const now = choices.find(({ feel }) => feel === section.feel)?.id ?? (section.feel ? 'own' : '');
  return (
    <Choice
      label={words.feelOfSection(section.name)}
      short={words.feel}
      value={now}
      options={[
        { value: '', name: words.asItsPatternsHaveIt },
        ...(now === 'own' ? [{ value: 'own', name: words.itsOwn }] : []),
        ...choices.map(({ id, name }) => ({ value: id, name: words.asName(name) })),
      ]}
      onChange={(id) =>
        id !== 'own' && change(section.id, { feel: choices.find((one) => one.id === id)?.feel ?? null })
      }
    />
  );
};

const Own = ({ beat, section }: OnSection) => {
  const within = useClamped();
  const tempo = section.tempo ?? beat.tempo;
  return (
    <Group title={words.ofItsOwn}>
      <OwnFeel beat={beat} section={section} />
      <Figures>
        <NumberField
          label={words.tempoOfSection(section.name)}
          value={tempo}
          {...TEMPO}
          under={section.tempo === undefined ? words.asTheBeat : words.bpm}
          width={88}
          onChange={(asked, gesture) =>
            change(section.id, { tempo: within(asked, TEMPO.least, TEMPO.most, words.theTempo) }, gesture)
          }
        />
        <Chip disabled={section.tempo === undefined} onPress={() => change(section.id, { tempo: null })}>
          {words.asTheBeat2}
        </Chip>
      </Figures>
      <Range
        label={words.levelOfSection(section.name)}
        short={words.level}
        value={section.level ?? 1}
        least={0}
        most={2}
        step={0.01}
        written={PERCENT}
        shown={percent(section.level ?? 1)}
        onChange={(level, gesture) => change(section.id, { level: level === 1 ? null : level }, gesture)}
      />
    </Group>
  );
};

const Across = ({ beat, section }: OnSection) => {
  const within = useClamped();
  const bars = Math.max(1, sectionBars(beat, section));
  const now = section.change ?? {};
  const set = (args: Partial<NonNullable<Section['change']>>, gesture?: string) => {
    const next = Object.fromEntries(
      Object.entries({ ...now, ...args }).filter(([, value]) => value !== undefined),
    );
    change(section.id, { change: Object.keys(next).length ? next : null }, gesture);
  };
  return (
    <Group title={words.gradualChanges}>
      <Figures>
        <Chip
          pressed={now.tempo !== undefined}
          onPress={() => set({ tempo: now.tempo === undefined ? (section.tempo ?? beat.tempo) : undefined })}
        >
          {words.tempo}
        </Chip>
        {now.tempo === undefined ? null : (
          <NumberField
            label={words.tempoAtTheEndOf(section.name)}
            value={now.tempo}
            {...TEMPO}
            under={words.bpmAtItsEnd}
            width={112}
            onChange={(asked, gesture) =>
              set({ tempo: within(asked, TEMPO.least, TEMPO.most, words.theTempo) }, gesture)
            }
          />
        )}
        {now.tempo === undefined ? null : (
          <NumberField
            label={words.tempoOverTheLastBarsOf(section.name)}
            value={now.bars ?? bars}
            least={1}
            most={Math.min(RANGES.leanBars.most, bars)}
            under={words.lastBars}
            width={84}
            onChange={(asked, gesture) => {
              const over = Math.round(asked);
              set({ bars: over >= bars ? undefined : Math.max(1, over) }, gesture);
            }}
          />
        )}
        <Chip
          pressed={now.swing !== undefined}
          onPress={() => set({ swing: now.swing === undefined ? 58 : undefined })}
        >
          {words.swing}
        </Chip>
        {now.swing === undefined ? null : (
          <NumberField
            label={words.swingAtTheEndOf(section.name)}
            value={now.swing}
            {...SWING}
            unit=" %"
            under={words.atItsEnd}
            width={96}
            onChange={(asked, gesture) => set({ swing: asked }, gesture)}
          />
        )}
        <Chip
          pressed={now.level !== undefined}
          onPress={() => set({ level: now.level === undefined ? 1.2 : undefined })}
        >
          {words.level}
        </Chip>
      </Figures>
      {now.level === undefined ? null : (
        <Range
          label={words.levelAtTheEndOf(section.name)}
          short={words.to}
          value={now.level}
          least={0}
          most={2}
          step={0.01}
          written={PERCENT}
          shown={percent(now.level)}
          onChange={(level, gesture) => set({ level }, gesture)}
        />
      )}
      {now.swing !== undefined && (section.feel ?? beat.feel).base === 'template' ? (
        <Para quiet>{words.itFollowsATemplateWhich}</Para>
      ) : null}
    </Group>
  );
};

const NO_PUSH = { ms: 0, bars: 2 };

/** What strokes come to lean by over the bars before a section: a push into it, or a drag. */
const Into = ({ section }: OnSection) => {
  const now = section.into ?? NO_PUSH;
  const set = (args: Partial<typeof NO_PUSH>, gesture?: string) => {
    const into = { ...now, ...args };
    change(section.id, { into: into.ms ? into : null }, gesture);
  };
  return (
    <Group title={words.ledInto}>
      <Figure
        of="lean"
        label={words.leanInto(section.name)}
        short={words.lean}
        value={now.ms}
        shown={now.ms ? words.pushOrDrag(now.ms) : words.onTime}
        onChange={(ms, gesture) => set({ ms }, gesture)}
      />
      {now.ms ? (
        <NumberField
          label={words.barsBefore(section.name)}
          value={now.bars}
          {...bounds(RANGES.leanBars)}
          under={words.barsBeforeIt}
          width={96}
          onChange={(asked, gesture) => set({ bars: heldToRange(RANGES.leanBars, asked) }, gesture)}
        />
      ) : null}
    </Group>
  );
};

const AtItsPlace = ({
  beat,
  section,
  place,
  onOther,
}: OnSection & { place: Place; onOther: (id: string) => void }) => {
  const within = useClamped();
  const linked = beat.song.order.filter(({ sectionId }) => sectionId === section.id).length;
  const at = beat.song.order.findIndex(({ id }) => id === place.id);
  return (
    <Group title={words.itsPlaceInTheSong}>
      <Figures>
        <NumberField
          label={words.timesSectionPlaysHere(section.name)}
          value={place.times}
          least={1}
          most={64}
          under={words.times}
          width={56}
          onChange={(asked, gesture) =>
            editSong(
              {
                edit: 'repeatPlace',
                args: { placeId: place.id, times: within(asked, 1, SONG.times, words.times2) },
              },
              gesture,
            )
          }
        />
        <Words quiet>{linked > 1 ? words.linkedInPlaces(linked) : words.usedOnlyHere}</Words>
      </Figures>
      <Chips>
        <Chip
          onPress={() =>
            editSong({
              edit: 'linkSection',
              args: { place: { id: nanoid(), sectionId: section.id, times: 1 }, at: at + 1 },
            })
          }
        >
          {words.againLinked}
        </Chip>
        <Chip
          onPress={() => {
            const newPlaceId = nanoid();
            editSong({
              edit: 'duplicateSection',
              args: { placeId: place.id, sectionId: nanoid(), newPlaceId },
            });
            onOther(newPlaceId);
          }}
        >
          {words.duplicateItsOwn}
        </Chip>
        {linked > 1 ? (
          <Chip
            onPress={() => editSong({ edit: 'ownSection', args: { placeId: place.id, sectionId: nanoid() } })}
          >
            {words.makeThisOneItsOwn}
          </Chip>
        ) : null}
        <Chip
          disabled={at <= 0}
          onPress={() => editSong({ edit: 'movePlace', args: { placeId: place.id, to: at - 1 } })}
        >
          {words.earlier}
        </Chip>
        <Chip
          disabled={at >= beat.song.order.length - 1}
          onPress={() => editSong({ edit: 'movePlace', args: { placeId: place.id, to: at + 1 } })}
        >
          {words.later}
        </Chip>
        <Chip
          tone="danger"
          onPress={() => {
            editSong({ edit: 'removePlace', args: { placeId: place.id } });
            onOther('');
          }}
        >
          {words.takeItOut}
        </Chip>
      </Chips>
    </Group>
  );
};

interface SectionEditorProps extends OnSection {
  place: Place;
  /** Another place is to be shown; '' is none. */
  onOther: (placeId: string) => void;
}

/** Everything about one section. */
export const SectionEditor = ({ beat, section, place, onOther }: SectionEditorProps) => (
  <View key={section.id}>
    <Naming beat={beat} section={section} />
    <Entries beat={beat} section={section} />
    <Ending beat={beat} section={section} />
    <Silent beat={beat} section={section} />
    <Own beat={beat} section={section} />
    <Across beat={beat} section={section} />
    <Into beat={beat} section={section} />
    <AtItsPlace beat={beat} section={section} place={place} onOther={onOther} />
  </View>
);
