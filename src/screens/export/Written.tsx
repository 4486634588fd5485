import { useWide } from '../../ui/useWide';
import { DragOut } from '../../web/DragOut';
import { View } from 'react-native';
import { Para, Words } from '../../ui/Words';
import { Items, Item } from '../../ui/Layout';
import { styles } from './styles';
import type { DragEvent, ReactNode } from 'react';
import { pathOf, type Exported, type OutFile } from '../../../core/export/exporting';
import type { ExportHow } from '../../../core/export/choice';
import { meterText } from '../../../core/beat/meter';
import { count } from '../../../core/beat/text';
import { tempoOf } from '../../../core/export/list';
import { barsOf } from '../../../core/export/midi';
import { mayDrag } from './giving';

const SHOWN = 12;

const sumOf = (files: OutFile[], key: 'notes' | 'tracks'): number =>
  files.reduce((sum, file) => sum + file[key], 0);

/** "2 bars of 4/4 at 92 BPM, 84 notes, ending on the bar line." */
const lead = ({ files, pieces }: Exported): string => {
  const notes = count(sumOf(files, 'notes'), 'note');
  if (pieces.length > 1)
    return `${count(files.length, 'file')} of ${pieces.length} parts, ${notes}, each ending on a bar line.`;
  const piece = pieces[0]!;
  const bars = barsOf(piece);
  const meters = [...new Set(bars.map(({ meter }) => meterText(meter)))].join(' and ');
  const bpm = Math.round(tempoOf(piece) * 100) / 100;
  return `${count(bars.length, 'bar')} of ${meters} at ${bpm} BPM, ${notes}, ending on the bar line.`;
};

const tracksOf = ({ kind }: ExportHow, { files, map }: Exported): string | null => {
  if (kind !== 'midi') return null;
  const tracks = sumOf(files, 'tracks');
  return `${files.length > 1 ? `${files.length} files` : 'One file'}, ${count(tracks, 'track')}, written with the drum map “${map}”.`;
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
        <Para>{`${count(carried, 'note')} that the feel moves over the loop’s edge ${carried === 1 ? 'comes' : 'come'} in at its other end.`}</Para>
      ) : null}
      {warnings.map((warning) => (
        <Para danger key={warning}>
          {warning}
        </Para>
      ))}
      {empty ? (
        <Para>
          {how.scope === 'pattern'
            ? 'There is nothing to hear in this pattern yet; the file would be empty.'
            : 'There is nothing to hear in it yet; what is written would be empty.'}
        </Para>
      ) : null}
      {children}
      <Items style={styles.written} label="Files">
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
      {files.length > SHOWN ? <Para quiet>{`and ${files.length - SHOWN} more`}</Para> : null}
      {wide && files.some(mayDrag) ? (
        <Para quiet>Drag a file from this list, or all of them, to the desktop or into another program.</Para>
      ) : null}
    </>
  );
};
