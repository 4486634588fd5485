import { View } from 'react-native';
import { Select } from '../../ui/Select';
import { Item, Chips, Items } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { styles } from './styles';
import { useState } from 'react';
import { INSTRUMENTS, type InstrumentId } from '../../../core/beat/instruments';
import { articulationsOf } from '../../../core/groove/revoice';
import { entryOf, GENERAL_MIDI, type DrumMap } from '../../../core/midi/drumMap';
import { laneCrossings, writtenWith, type LaneCrossing } from '../../../core/midi/laneMap';
import { beatEdited } from '../../state/doc';
import { store } from '../../state/session';
import { noticed } from '../../state/slices';
import { selectBeat, useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';

const KINDS = { same: 'has it', near: 'has a near one', none: 'has nothing for it' } as const;

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
        <Words quiet inline>{` ${lane.note}, the map ${KINDS[kind]}`}</Words>
      </Words>
      <View style={styles.mapChoice}>
        <Select<InstrumentId | ''>
          label={`${lane.name} is written as`}
          value={as ?? ''}
          options={[
            { value: '', name: `Keeps note ${lane.note}` },
            ...others.map((id) => ({
              value: id,
              name: `${INSTRUMENTS[id].name}, note ${entryOf(map, id)!.note}`,
            })),
          ]}
          onChange={(id) => onChange(id || null)}
        />
      </View>
      <Words figure style={styles.mapFigure}>
        {entry ? entry.note : lane.note}
      </Words>
      {!as && clash ? (
        <Words
          small
          danger
          style={styles.whole}
        >{`Note ${lane.note} is ${INSTRUMENTS[clash].name} there.`}</Words>
      ) : null}
    </Item>
  );
};

/** The beat written with a map: lane by lane what has a counterpart, what gets a near one, what has none. */
export const WriteWith = ({ map }: { map: DrumMap }) => {
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
    act(noticed({ text, subject: 'maps', action: { label: 'Undo', does: { kind: 'undo', at } } }));
  const write = () => {
    const as = Object.fromEntries(lines.map((line) => [line.lane.id, asOf(line)]));
    const at = store.getState().doc.past.length + 1;
    act(beatEdited({ edit: { edit: 'useMap', args: { map, choice: { keep: 'instruments', as } } } }));
    const kept = lines.filter((line) => !asOf(line)).map(({ lane }) => lane.name);
    done(
      `Your beat is written with “${map.name}”.${kept.length ? ` ${kept.join(', ')} kept ${kept.length === 1 ? 'its note' : 'their notes'}.` : ''}`,
      at,
    );
  };
  const follow = () => {
    const changed = writtenWith(beat, map, { keep: 'notes' }).lanes.filter(
      (lane, at) => lane !== beat.lanes[at],
    );
    const at = store.getState().doc.past.length + 1;
    act(beatEdited({ edit: { edit: 'useMap', args: { map, choice: { keep: 'notes' } } } }));
    done(
      changed.length
        ? `${changed.map(({ name }) => name).join(', ')} follow “${map.name}”; no note was changed.`
        : `Every lane is already what “${map.name}” says.`,
      at,
    );
  };
  return (
    <>
      <Para>{`Written with ${beat.map?.name ?? GENERAL_MIDI.name} now. With “${map.name}”:`}</Para>
      <Chips>
        <Chip onPress={write}>Write the beat with this map</Chip>
        <Chip onPress={follow}>Keep the notes; names follow</Chip>
      </Chips>
      <Items style={styles.mapNotes} label="Lanes in this map">
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
      <Para quiet>
        The first changes note numbers, so that each lane sounds its own drum. The second keeps the numbers:
        lanes take the names and instruments that the map has for them, as for a kit that was changed.
      </Para>
    </>
  );
};
