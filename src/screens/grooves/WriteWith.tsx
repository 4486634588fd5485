import { View } from 'react-native';
import { Select } from '../../ui/Select';
import { Item, Chips, Items } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { styles } from './styles';
import { useState } from 'react';
import { INSTRUMENTS, type InstrumentId } from '../../../core/document/instruments';
import { articulationsOf } from '../../../core/groove/revoice';
import { entryOf, GENERAL_MIDI, type DrumMap } from '../../../core/midi/drumMap/drumMap';
import { laneCrossings, writtenWith, type LaneCrossing } from '../../../core/midi/drumMap/laneMap';
import { beatEdited } from '../../store/doc';
import { noticed } from '../../store/slices';
import { selectBeat, useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { words } from '../../words/grooves';

const KINDS = { same: words.hasIt, near: words.hasANearOne, none: words.hasNothingForIt } as const;

interface LineProps {
  line: LaneCrossing;
  map: DrumMap;
  as: InstrumentId | null;
  onChange: (as: InstrumentId | null) => void;
}

/** A lane, what the map has for it, and what it is to be written as. */
const Line = ({ line, map, as, onChange }: LineProps) => {
  const { lane, kind, clash } = line;
  const others = [
    ...new Set([lane.instrument, ...articulationsOf(lane.instrument), ...(as ? [as] : [])]),
  ].filter((id) => entryOf(map, id));
  const entry = as && entryOf(map, as);
  return (
    <Item style={styles.mapNote}>
      <Words style={[styles.givenName, !as && styles.greyed]}>
        {lane.name}
        <Words quiet inline>
          {words.noteTheMapKind(lane.note, KINDS[kind])}
        </Words>
      </Words>
      <View style={styles.mapChoice}>
        <Select<InstrumentId | ''>
          label={words.laneIsWrittenAs(lane.name)}
          value={as ?? ''}
          options={[
            { value: '', name: words.keepsNoteNote(lane.note) },
            ...others.map((id) => ({
              value: id,
              name: words.instrumentNoteNote(INSTRUMENTS[id].name, entryOf(map, id)!.note),
            })),
          ]}
          onChange={(id) => onChange(id || null)}
        />
      </View>
      <Words figure style={styles.mapFigure}>
        {entry ? entry.note : lane.note}
      </Words>
      {!as && clash ? (
        <Words small danger style={styles.whole}>
          {words.noteNoteIsInstrumentThere(lane.note, INSTRUMENTS[clash].name)}
        </Words>
      ) : null}
    </Item>
  );
};

/** The beat written with a map: lane by lane what has a counterpart, what gets a near one, what has none. */
export const WriteWith = ({ map }: { map: DrumMap }) => {
  const store = useAppStore();
  const beat = useApp(selectBeat);
  const act = useDo();
  const [chosen, setChosen] = useState<Record<string, InstrumentId | null>>({});
  if (!beat) return null;
  const lines = laneCrossings(beat, map);
  const asOf = (line: LaneCrossing) => {
    const own = chosen[line.lane.id];
    return own === undefined ? line.as : own;
  };
  const done = (text: string, at: number) =>
    act(noticed({ text, subject: 'maps', action: { label: words.undo, does: { kind: 'undo', at } } }));
  const write = () => {
    const as = Object.fromEntries(lines.map((line) => [line.lane.id, asOf(line)]));
    const at = store.getState().doc.past.length + 1;
    act(beatEdited({ edit: { edit: 'useMap', args: { map, choice: { keep: 'instruments', as } } } }));
    const kept = lines.filter((line) => !asOf(line)).map(({ lane }) => lane.name);
    done(words.yourBeatIsWrittenWith(map.name, !!kept.length, kept.join(', '), kept.length), at);
  };
  const follow = () => {
    const changed = writtenWith(beat, map, { keep: 'notes' }).lanes.filter(
      (lane, at) => lane !== beat.lanes[at],
    );
    const at = store.getState().doc.past.length + 1;
    act(beatEdited({ edit: { edit: 'useMap', args: { map, choice: { keep: 'notes' } } } }));
    done(
      changed.length
        ? words.changedFollowMapNoNote(changed.map(({ name }) => name).join(', '), map.name)
        : words.everyLaneIsAlreadyWhat(map.name),
      at,
    );
  };
  return (
    <>
      <Para>{words.writtenWithMapNowWith(beat.map?.name ?? GENERAL_MIDI.name, map.name)}</Para>
      <Chips>
        <Chip onPress={write}>{words.writeTheBeatWithThis}</Chip>
        <Chip onPress={follow}>{words.keepTheNotesNamesFollow}</Chip>
      </Chips>
      <Items style={styles.mapNotes} label={words.lanesInThisMap}>
        {lines.map((line) => (
          <Line
            key={line.lane.id}
            line={line}
            map={map}
            as={asOf(line)}
            onChange={(as) => setChosen({ ...chosen, [line.lane.id]: as })}
          />
        ))}
      </Items>
      <Para quiet>{words.theFirstChangesNoteNumbers}</Para>
    </>
  );
};
