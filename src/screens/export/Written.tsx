import { useWide } from '../../ui/useWide';
import { DragOut } from '../../web/DragOut';
import { View } from 'react-native';
import { Para, Words } from '../../ui/Words';
import { Items, Item } from '../../ui/Layout';
import { styles } from './styles';
import type { DragEvent, ReactNode } from 'react';
import { pathOf, type Exported, type OutFile } from '../../../core/export/exporting';
import type { ExportHow } from '../../../core/export/choice';
import { meterText } from '../../../core/document/meter';
import { count } from '../../../core/document/text';
import { tempoOf } from '../../../core/export/list';
import { barsOf } from '../../../core/export/midi';
import { mayDrag } from './giving';
import { words } from '../../words/export';

const SHOWN = 12;

const sumOf = (files: OutFile[], key: 'notes' | 'tracks'): number =>
  files.reduce((sum, file) => sum + file[key], 0);

/** "2 bars of 4/4 at 92 BPM, 84 notes, ending on the bar line." */
const lead = ({ files, pieces }: Exported): string => {
  const notes = count(sumOf(files, 'notes'), 'note');
  if (pieces.length > 1) return words.ofMany2PartsNotesEach(files.length, pieces.length, notes);
  const piece = pieces[0]!;
  const bars = barsOf(piece);
  const meters = [...new Set(bars.map(({ meter }) => meterText(meter)))].join(' and ');
  const bpm = Math.round(tempoOf(piece) * 100) / 100;
  return words.ofMetersAtBpmBpm(bars.length, meters, bpm, notes);
};

const tracksOf = ({ kind }: ExportHow, { files, map }: Exported): string | null => {
  if (kind !== 'midi') return null;
  const tracks = sumOf(files, 'tracks');
  return words.writtenWithTheDrumMap(files.length, tracks, map);
};

const aboutFile = (file: OutFile, { kind }: ExportHow): string =>
  [
    count(file.bars, 'bar'),
    ...(kind === 'midi' && file.tracks > 1 ? [count(file.tracks, 'track')] : []),
    ...(file.notes ? [count(file.notes, 'note')] : []),
  ].join(', ');

interface WrittenProps {
  out: Exported;
  how: ExportHow;
  onDrag: (file: OutFile, event: DragEvent) => void;
  /** The ways out, above the list. */
  children: ReactNode;
}

/** What will be written, or was: files, bars, tracks, notes, map, and what is to be known. */
export const Written = ({ out, how, onDrag, children }: WrittenProps) => {
  const { files, warnings, carried } = out;
  const tracks = tracksOf(how, out);
  const wide = useWide();
  const empty = sumOf(files, 'notes') === 0;
  return (
    <>
      <Para>{lead(out)}</Para>
      {tracks ? <Para>{tracks}</Para> : null}
      {carried && how.edges === 'wrap' && how.scope !== 'song' ? (
        <Para>{words.thatTheFeelMovesOver(carried)}</Para>
      ) : null}
      {warnings.map((warning) => (
        <Para danger key={warning}>
          {warning}
        </Para>
      ))}
      {empty ? (
        <Para>{how.scope === 'pattern' ? words.thereIsNothingToHear : words.thereIsNothingToHearIn}</Para>
      ) : null}
      {children}
      <Items style={styles.written} label={words.files}>
        {files.slice(0, SHOWN).map((file) => (
          <Item key={pathOf(file)}>
            <DragOut when={mayDrag(file)} onStart={(event) => onDrag(file, event)}>
              <View style={styles.writtenLine}>
                <Words figure style={styles.writtenName}>
                  {pathOf(file)}
                </Words>
                <Words small quiet style={styles.writtenNotes}>
                  {aboutFile(file, how)}
                </Words>
              </View>
            </DragOut>
          </Item>
        ))}
      </Items>
      {files.length > SHOWN ? <Para quiet>{words.andManyMore(files.length - SHOWN)}</Para> : null}
      {wide && files.some(mayDrag) ? <Para quiet>{words.dragAFileFromThis}</Para> : null}
    </>
  );
};
