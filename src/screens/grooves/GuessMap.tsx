import { Para, Words } from '../../ui/Words';
import { Items, Item } from '../../ui/Layout';
import { styles } from './styles';
import { useEffect, useState } from 'react';
import type { InstrumentId } from '../../../core/document/instruments';
import type { Groove } from '../../../core/groove/groove';
import type { DrumMap } from '../../../core/midi/drumMap/drumMap';
import type { Guess } from '../../../core/analysis/guessMap';
import { strikeLane } from '../../audio/player';
import { selectBeat, useApp } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { readAside } from '../../workers/aside';
import { rereadHeard } from './audition';
import { InstrumentChoice } from '../../ui/InstrumentChoice';
import { shelf } from './shelf';
import { words } from '../../words/grooves';

const sureness = (certainty: number): string =>
  certainty > 0.8 ? words.quiteSure : certainty > 0.5 ? words.likely : words.aGuess;

interface GuessMapProps {
  heard: Groove | null;
  /** @returns the name it was given */
  onMake: (map: DrumMap) => string;
}

/** What the notes of a file are, by how they behave; each to be heard, confirmed or changed. */
export const GuessMap = ({ heard, onMake }: GuessMapProps) => {
  const [guesses, setGuesses] = useState<(Omit<Guess, 'instrument'> & { instrument: InstrumentId | null })[]>(
    [],
  );
  const beat = useApp(selectBeat);
  const file = heard && heard.source !== 'built-in' ? heard : null;
  useEffect(() => {
    let current = true;
    if (!file) return;
    void shelf.bytes(file.id).then(async (bytes) => {
      const read = bytes && (await readAside('guess', bytes, shelf.examples()));
      if (current && read?.ok) setGuesses(read.value);
    });
    return () => {
      current = false;
    };
  }, [file]);
  if (!file) return <Para quiet>{words.chooseAGrooveThatCame}</Para>;
  const make = async () => {
    const notes = guesses.flatMap(({ note, instrument }) => (instrument ? [{ note, instrument }] : []));
    const name = onMake({
      kind: 'ruddik.drumMap',
      version: 1,
      name: words.guessedFromFile(file.name).slice(0, 80),
      notes,
    });
    await shelf.readAnew(file.id, { map: name });
    await rereadHeard();
  };
  const laneFor = (id: InstrumentId) => beat?.lanes.find(({ instrument }) => instrument === id)?.id;
  return (
    <>
      <Para>{words.theNotesOfFileBy(file.name)}</Para>
      <Items style={styles.mapNotes} label={words.guessed}>
        {guesses.map((guess) => {
          const lane = guess.instrument && laneFor(guess.instrument);
          return (
            <Item key={guess.note}>
              <Words figure>{guess.note}</Words>
              <InstrumentChoice
                label={words.noteNoteIs(guess.note)}
                value={guess.instrument}
                none={words.nothing}
                onChange={(instrument) =>
                  setGuesses(guesses.map((one) => (one === guess ? { ...one, instrument } : one)))
                }
              />
              <Words quiet>{`${sureness(guess.certainty)}, ${Math.round(guess.certainty * 100)} %`}</Words>
              <IconButton
                label={words.hearNoteNoteSo(guess.note)}
                icon="play"
                disabled={!lane}
                onPress={() => lane && void strikeLane(lane, 100)}
              />
            </Item>
          );
        })}
      </Items>
      <Chip disabled={!guesses.length} onPress={() => void make()}>
        {words.makeItAMapAnd}
      </Chip>
    </>
  );
};
