import { Items, Item } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useState } from 'react';
import { DRUM_IDS, INSTRUMENTS, type InstrumentId } from '../../../core/document/instruments';
import { entryOf, isPlayable, withNote, type DrumMap } from '../../../core/midi/drumMap/drumMap';
import { noteName } from '../../../core/document/noteName';
import { clamp } from '../../../core/units';
import { cancelLearning, learnNote } from '../../audio/noteInput';
import { noticed } from '../../store/slices';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { NumberField } from '../../ui/NumberField';
import { InstrumentChoice } from '../../ui/InstrumentChoice';
import { words } from '../../words/grooves';

interface MapEditorProps {
  map: DrumMap;
  /** @param told what became of other notes by it, where that is not seen at once */
  onChange: (map: DrumMap, told?: string) => void;
}

/** Sooner than this the wait was ended by hand. */
const GIVEN_UP_MS = 14000;

/** The drum that is to be learnt next: the first that the map has no note for. */
const nextToLearn = (map: DrumMap, after: InstrumentId | null): InstrumentId | null => {
  const from = after ? DRUM_IDS.indexOf(after) + 1 : 0;
  return DRUM_IDS.slice(from).find((id) => !entryOf(map, id)) ?? null;
};

/** Note after note: a drum is named, a key is struck. */
const Learn = ({ map, onChange }: MapEditorProps) => {
  const [id, setId] = useState<InstrumentId | null>(() => nextToLearn(map, null) ?? 'kick');
  const [waiting, setWaiting] = useState(false);
  const act = useDo();
  useEffect(() => cancelLearning, []);
  const learn = async () => {
    if (!id) return;
    if (waiting) return cancelLearning();
    const begun = performance.now();
    setWaiting(true);
    const note = await learnNote();
    setWaiting(false);
    if (note === null) {
      if (performance.now() - begun < GIVEN_UP_MS) return;
      act(
        noticed({
          text: words.noNoteCameIn15,
          subject: 'maps',
        }),
      );
      return;
    }
    const changed = withNote({ ...map, notes: map.notes.filter((one) => one.instrument !== id) }, note, {
      instrument: id,
    });
    const lost = map.notes.filter((one) => one.note === note && one.instrument !== id);
    const taken = lost.length
      ? words.itWasTakenFromLost(lost.map((one) => INSTRUMENTS[one.instrument].name).join(' and '))
      : '';
    onChange(changed, words.instrumentIsNoteNoteNow(INSTRUMENTS[id].name, note, taken));
    setId(nextToLearn(changed, id));
  };
  return (
    <View style={styles.learn}>
      <InstrumentChoice label={words.drumToLearn} value={id} none={words.allAreLearnt} onChange={setId} />
      <Chip disabled={!id} pressed={waiting} onPress={() => void learn()}>
        {waiting ? words.strikeThePadOf(id ? INSTRUMENTS[id].name : '') : words.learnItsNote}
      </Chip>
    </View>
  );
};

/** The notes of a map, one a line. */
export const MapEditor = ({ map, onChange }: MapEditorProps) => {
  const [note, setNote] = useState(36);
  const names = useApp(({ look }) => look.noteNames);
  return (
    <>
      <Learn key={map.name} map={map} onChange={onChange} />
      <View style={styles.learn}>
        <NumberField
          label={words.noteToSet}
          value={note}
          least={0}
          most={127}
          under={noteName(note, names) || words.note}
          width={72}
          onChange={(value) => setNote(clamp(Math.round(value), 0, 127))}
        />
        <InstrumentChoice
          label={words.noteNotePlays(note)}
          value={map.notes.find((one) => one.note === note && one.channel === undefined)?.instrument ?? null}
          none={words.nothing}
          onChange={(instrument) => onChange(withNote(map, note, instrument ? { instrument } : null))}
        />
      </View>
      <Items style={styles.mapNotes} label={words.notesOfMap(map.name)}>
        {map.notes.map((one) => (
          <Item key={`${one.note} ${one.channel ?? ''}`} style={styles.mapNote}>
            <Words figure style={styles.mapNumber}>
              {one.note}{' '}
              <Words small quiet inline>
                {noteName(one.note, names)}
              </Words>
            </Words>
            {one.channel === undefined ? null : (
              <Words small quiet>
                {words.onChannel(one.channel)}
              </Words>
            )}
            {isPlayable(one) ? null : (
              <Words small quiet>
                {words.beyond0To127Kept}
              </Words>
            )}
            <InstrumentChoice
              label={words.noteNoteIs(one.note, one.channel)}
              value={one.instrument}
              none={words.nothing}
              onChange={(instrument) =>
                onChange(withNote(map, one.note, instrument ? { instrument } : null, one.channel))
              }
            />
            <IconButton
              label={words.takeNoteNoteOut(one.note, one.channel)}
              icon="remove"
              onPress={() => onChange(withNote(map, one.note, null, one.channel))}
            />
          </Item>
        ))}
      </Items>
      {map.notes.length ? null : <Para quiet>{words.noNoteHasADrum}</Para>}
    </>
  );
};
