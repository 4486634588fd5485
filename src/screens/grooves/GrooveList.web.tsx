import { Cover } from '../../ui/Cover';
import { useVirtualizer } from '@tanstack/react-virtual';
import { memo, useEffect, useRef, type DragEvent, type KeyboardEvent } from 'react';
import { meterText } from '../../../core/beat/meter';
import { keeperWords, SORT_NAMES, type Folder, type Sort } from '../../../core/groove/catalogue';
import { feelWords, type GrooveRow } from '../../../core/groove/groove';
import { drag } from '../../ui/dragged';
import { Icon } from '../../ui/Icon';
import type { Line, Lines } from './lines';
import { rowAside } from './tray';
import { aboutRow } from './words';

interface GrooveListProps {
  lines: Lines;
  /** What is looked at: another place is seen from its beginning. */
  place: string;
  chosen: string | null;
  /** Where it stands among the lines; -1 where it does not. */
  chosenAt: number;
  sounding: boolean;
  keeps: (line: Line) => boolean;
  onChoose: (row: GrooveRow) => void;
  onFolder: (path: string[]) => void;
  onKeep: (line: Line) => void;
  wide: boolean;
  sort: Sort;
  down: boolean;
  onSort: (by: Sort) => void;
}

const ROW = 56;
const WIDE_ROW = 44;

/** The columns of the wide list, in order. */
const COLUMNS: { by: Sort; text: (row: GrooveRow) => string }[] = [
  { by: 'style', text: ({ style }) => style },
  { by: 'feel', text: ({ feel }) => feelWords(feel) },
  { by: 'meter', text: ({ meter }) => meterText(meter) },
  { by: 'bpm', text: ({ bpm }) => String(Math.round(bpm * 10) / 10) },
  { by: 'bars', text: ({ bars }) => String(bars) },
  { by: 'keeper', text: (row) => (row.timekeeper ? keeperWords(row) : '–') },
  { by: 'tag', text: ({ tags }) => tags.join(', ') },
  { by: 'source', text: ({ source }) => source },
];

interface LineItemProps {
  line: Line;
  at: number;
  size: number;
  top: number;
  height: number;
  chosen: boolean;
  sounding: boolean;
  kept: boolean;
  wide: boolean;
  onPress: (line: Line) => void;
  onKeep: (line: Line) => void;
}

const Keep = ({ name, kept, onKeep }: { name: string; kept: boolean; onKeep: () => void }) => (
  <button
    type="button"
    className="keep"
    aria-label={`Keep ${name}`}
    aria-pressed={kept}
    onClick={onKeep}
    tabIndex={-1}
  >
    <Icon name="keeper" filled={kept} />
  </button>
);

const FolderWords = ({ folder }: { folder: Folder }) => (
  <span className="groove-words">
    <span className="groove-name">{folder.name}</span>
    <span className="quiet">{`${folder.grooves} ${folder.grooves === 1 ? 'groove' : 'grooves'}`}</span>
  </span>
);

const GrooveWords = ({ row, wide }: { row: GrooveRow; wide: boolean }) => (
  <>
    <span className="groove-words">
      <span className="groove-name">{row.name}</span>
      {wide ? null : <span className="quiet">{aboutRow(row)}</span>}
    </span>
    {wide
      ? COLUMNS.map(({ by, text }) => (
          <span key={by} className={`column column-${by}`}>
            {text(row)}
          </span>
        ))
      : null}
  </>
);

const LineItem = memo(function LineItem(props: LineItemProps) {
  const { line, at, size, top, height, chosen, sounding, kept, wide, onPress, onKeep } = props;
  const name = line.kind === 'folder' ? line.folder.name : line.row.name;
  const icon = line.kind === 'folder' ? 'beats' : chosen && sounding ? 'stop' : 'play';
  return (
    <div
      role="listitem"
      aria-setsize={size}
      aria-posinset={at + 1}
      className={chosen ? 'groove-line chosen' : 'groove-line'}
      style={{ top, height }}
      {...(wide &&
        line.kind === 'groove' && {
          draggable: true,
          onDragStart: (event: DragEvent) => {
            event.dataTransfer.setData('text/plain', name);
            drag(() => void rowAside(line.row));
          },
          onDragEnd: () => drag(null),
        })}
    >
      <div className="groove-open">
        <Cover
          label={line.kind === 'folder' ? `Folder ${name}` : name}
          {...(line.kind === 'groove' && { current: chosen })}
          tabIndex={chosen || at === 0 ? 0 : -1}
          onPress={() => onPress(line)}
        />
        <Icon name={icon} size={18} />
        {line.kind === 'folder' ? (
          <FolderWords folder={line.folder} />
        ) : (
          <GrooveWords row={line.row} wide={wide} />
        )}
      </div>
      <Keep name={name} kept={kept} onKeep={() => onKeep(line)} />
    </div>
  );
});

const headOf = (by: Sort): string => (by === 'meter' ? 'Meter' : SORT_NAMES[by]);

const Heads = ({ sort, down, onSort }: Pick<GrooveListProps, 'sort' | 'down' | 'onSort'>) => (
  <div className="groove-heads">
    {[{ by: 'name' as Sort }, ...COLUMNS].map(({ by }) => (
      <button
        key={by}
        type="button"
        className={`column column-${by}`}
        aria-label={`${headOf(by)}${sort === by ? (down ? ' ↓' : ' ↑') : ''}: sort by it`}
        aria-pressed={sort === by}
        onClick={() => onSort(by)}
      >
        {headOf(by)}
        {sort === by ? <span aria-hidden>{down ? ' ↓' : ' ↑'}</span> : null}
      </button>
    ))}
  </div>
);

/** Lines by the ten thousand, of which only those in sight are there. */
export const GrooveList = (props: GrooveListProps) => {
  const { lines, chosen, chosenAt, sounding, keeps, onChoose, onFolder, onKeep, wide } = props;
  const box = useRef<HTMLDivElement>(null);
  const height = wide ? WIDE_ROW : ROW;
  // What it gives cannot be memoized: the compiler leaves this component alone, which is as it should be.
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({
    count: lines.count,
    getScrollElement: () => box.current,
    estimateSize: () => height,
    overscan: 3,
  });
  useEffect(() => rows.measure(), [height, rows]);
  const firstPlace = useRef(props.place);
  useEffect(() => {
    if (firstPlace.current === props.place) return;
    firstPlace.current = props.place;
    // What it knows of where it stands: the page itself would be laid out to tell.
    if (rows.scrollOffset) rows.scrollToOffset(0);
  }, [props.place, rows]);
  useEffect(() => {
    if (chosenAt >= 0) rows.scrollToIndex(chosenAt, { align: 'auto' });
    // Only a new choice brings itself into sight: not a list that changes under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen]);
  const press = (line: Line) => (line.kind === 'folder' ? onFolder(line.folder.path) : onChoose(line.row));
  const keys = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    const to = event.key === 'Home' ? 0 : event.key === 'End' ? lines.count - 1 : chosenAt + (by ?? 0);
    if (by === undefined && event.key !== 'Home' && event.key !== 'End') {
      const line = lines.at(chosenAt);
      if (event.key.toLowerCase() === 'k' && line && !event.ctrlKey && !event.metaKey) onKeep(line);
      return;
    }
    event.preventDefault();
    const line = lines.at(Math.max(0, Math.min(lines.count - 1, to)));
    if (line?.kind === 'groove') onChoose(line.row);
  };
  return (
    <div className="groove-list" onKeyDown={keys}>
      {wide ? <Heads {...props} /> : null}
      <div className="groove-scroll" ref={box}>
        <div role="list" aria-label="Grooves" style={{ height: rows.getTotalSize(), position: 'relative' }}>
          {rows.getVirtualItems().map(({ index, start }) => {
            const line = lines.at(index)!;
            const isChosen = index === chosenAt;
            return (
              <LineItem
                // By place: a list that changes under a search fills the lines that are there anew.
                key={index}
                line={line}
                at={index}
                size={lines.count}
                top={start}
                height={height}
                chosen={isChosen}
                sounding={isChosen && sounding}
                kept={keeps(line)}
                wide={wide}
                onPress={press}
                onKeep={onKeep}
              />
            );
          })}
        </div>
      </div>
    </div>
  );
};
