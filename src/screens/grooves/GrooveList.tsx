import { keyOf as pressedOf } from '../../ui/keys';
import { Press } from '../../ui/Press';
import { useWider } from '../../ui/useWide';
import { DragOut } from '../../web/DragOut';
import {
  FlatList,
  Text,
  View,
  type LayoutChangeEvent,
  type NativeScrollEvent,
  type NativeSyntheticEvent,
} from 'react-native';
import { styles } from './styles';
import { Cover } from '../../ui/Cover';
import {
  memo,
  useCallback,
  useDeferredValue,
  useEffect,
  useRef,
  type DragEvent,
  type KeyboardEvent,
} from 'react';
import { meterText } from '../../../core/document/meter';
import { keeperWords, SORT_NAMES, type Folder, type Sort } from '../../../core/groove/catalogue';
import { feelWords, type GrooveRow } from '../../../core/groove/groove';
import { drag } from '../../ui/dragged';
import { Icon } from '../../ui/Icon';
import type { GrooveLine, Lines } from './lines';
import { rowAside } from './tray';
import { aboutRow } from './words';
import { words } from '../../words/grooves';

interface GrooveListProps {
  lines: Lines;
  /** What is looked at: another place is seen from its beginning. */
  place: string;
  chosen: string | null;
  /** Where it stands among the lines; -1 where it does not. */
  chosenAt: number;
  sounding: boolean;
  keeps: (line: GrooveLine) => boolean;
  onChoose: (row: GrooveRow) => void;
  onFolder: (path: string[]) => void;
  onKeep: (line: GrooveLine) => void;
  wide: boolean;
  sort: Sort;
  down: boolean;
  onSort: (by: Sort) => void;
}

const ROW = 56;
const WIDE_ROW = 44;

interface Column {
  by: Sort;
  text: (row: GrooveRow) => string;
}

/** The columns of the wide list, in order. */
const COLUMNS: Column[] = [
  { by: 'style', text: ({ style }) => style },
  { by: 'feel', text: ({ feel }) => feelWords(feel) },
  { by: 'meter', text: ({ meter }) => meterText(meter) },
  { by: 'bpm', text: ({ bpm }) => String(Math.round(bpm * 10) / 10) },
  { by: 'bars', text: ({ bars }) => String(bars) },
  { by: 'keeper', text: (row) => (row.timekeeper ? keeperWords(row) : '–') },
  { by: 'tag', text: ({ tags }) => tags.join(', ') },
  { by: 'source', text: ({ source }) => source },
];

const NO_COLUMNS: Column[] = [];
/** Those that a narrower page has no room for. */
const SPARE: Sort[] = ['tag', 'source'];
const FEWER = COLUMNS.filter(({ by }) => !SPARE.includes(by));

interface LineItemProps {
  line: GrooveLine;
  at: number;
  size: number;
  height: number;
  chosen: boolean;
  sounding: boolean;
  kept: boolean;
  wide: boolean;
  columns: Column[];
  onPress: (line: GrooveLine) => void;
  onKeep: (line: GrooveLine) => void;
  takesFocus: () => boolean;
}

const Keep = ({ name, kept, onKeep }: { name: string; kept: boolean; onKeep: () => void }) => (
  <Press
    style={[styles.keep, kept && styles.kept]}
    label={words.keepName(name)}
    pressed={kept}
    onPress={onKeep}
    more={{ tabIndex: -1 }}
  >
    <Icon name="keeper" filled={kept} />
  </Press>
);

/** The place of a column, by what stands in it. */
const columnOf = (by: Sort) => [
  styles.column,
  {
    name: styles.columnName,
    style: styles.columnStyle,
    feel: styles.columnFeel,
    meter: styles.columnMeter,
    bpm: styles.columnBpm,
    bars: styles.columnBars,
    keeper: styles.columnKeeper,
    tag: styles.columnTag,
    source: styles.columnSource,
  }[by],
];

const FolderWords = ({ folder }: { folder: Folder }) => (
  <View style={styles.grooveWords}>
    <Text numberOfLines={1} style={styles.grooveName}>
      {folder.name}
    </Text>
    <Text numberOfLines={1} style={styles.grooveAbout}>
      {words.grooveCount(folder.grooves)}
    </Text>
  </View>
);

const GrooveWords = ({ row, wide, columns }: { row: GrooveRow; wide: boolean; columns: Column[] }) => (
  <>
    <View style={styles.grooveWords}>
      <Text numberOfLines={1} style={styles.grooveName}>
        {row.name}
      </Text>
      {wide ? null : (
        <Text numberOfLines={1} style={styles.grooveAbout}>
          {aboutRow(row, true)}
        </Text>
      )}
    </View>
    {columns.map(({ by, text }) => (
      <Text key={by} numberOfLines={1} style={[styles.columnWords, ...columnOf(by)]}>
        {text(row)}
      </Text>
    ))}
  </>
);

const LineItem = memo(function LineItem(props: LineItemProps) {
  const { line, at, size, height, chosen, sounding, kept, wide, columns, onPress, onKeep, takesFocus } =
    props;
  const name = line.kind === 'folder' ? line.folder.name : line.row.name;
  const icon = line.kind === 'folder' ? 'beats' : chosen && sounding ? 'stop' : 'play';
  const begin = (event: DragEvent) => {
    event.dataTransfer.setData('text/plain', name);
    if (line.kind === 'groove') drag(() => void rowAside(line.row));
  };
  // Few parts to a line: each letter of a search fills all of them anew.
  const content = (
    <>
      <Cover
        label={line.kind === 'folder' ? words.folderName(name) : name}
        {...(line.kind === 'groove' && { current: chosen })}
        tabIndex={chosen || at === 0 ? 0 : -1}
        onPress={() => onPress(line)}
        takesFocus={takesFocus}
      />
      <Icon name={icon} size={18} />
      {line.kind === 'folder' ? (
        <FolderWords folder={line.folder} />
      ) : (
        <GrooveWords row={line.row} wide={wide} columns={columns} />
      )}
      <Keep name={name} kept={kept} onKeep={() => onKeep(line)} />
    </>
  );
  return (
    <View
      style={[styles.grooveLine, chosen && styles.chosen, { height }]}
      {...({ role: 'listitem', 'aria-setsize': size, 'aria-posinset': at + 1 } as object)}
    >
      {wide ? (
        <DragOut line when={line.kind === 'groove'} onStart={begin} onEnd={() => drag(null)}>
          {content}
        </DragOut>
      ) : (
        content
      )}
    </View>
  );
});

const headOf = (by: Sort): string => (by === 'meter' ? words.meter : SORT_NAMES[by]);

const Heads = ({
  sort,
  down,
  onSort,
  columns,
}: Pick<GrooveListProps, 'sort' | 'down' | 'onSort'> & { columns: Column[] }) => (
  <View style={styles.grooveHeads}>
    {[{ by: 'name' as Sort }, ...columns].map(({ by }) => (
      <Press
        key={by}
        style={[styles.headPress, ...columnOf(by)]}
        label={words.headSortByIt(headOf(by), sort === by ? (down ? ' ↓' : ' ↑') : '')}
        pressed={sort === by}
        onPress={() => onSort(by)}
      >
        <Text numberOfLines={1} style={[styles.columnWords, styles.headWords, sort === by && styles.headOn]}>
          {`${headOf(by)}${sort === by ? (down ? ' ↓' : ' ↑') : ''}`}
        </Text>
      </Press>
    ))}
  </View>
);

let places: number[] = [];
/** The places of so many lines: the list asks for one item each. */
const placesTo = (count: number): number[] =>
  places.length === count ? places : (places = Array.from({ length: count }, (_, at) => at));
const keyOf = (_: unknown, index: number): string => String(index);

/** So many lines are filled anew at once, at each letter of a search; those below them a frame later. */
const AT_ONCE = 6;

/** Lines by the ten thousand, of which only those in sight are there. */
export const GrooveList = (props: GrooveListProps) => {
  const { lines, chosen, chosenAt, sounding, keeps, onChoose, onKeep, wide } = props;
  const box = useRef<FlatList>(null);
  const seen = useRef({ top: 0, height: 0 });
  const roomy = useWider(1440);
  const columns = !wide ? NO_COLUMNS : roomy ? COLUMNS : FEWER;
  const height = wide ? WIDE_ROW : ROW;
  const firstPlace = useRef(props.place);
  useEffect(() => {
    if (firstPlace.current === props.place) return;
    firstPlace.current = props.place;
    if (seen.current.top) box.current?.scrollToOffset({ offset: 0, animated: false });
  }, [props.place]);
  useEffect(() => {
    if (chosenAt < 0) return;
    const [top, bottom] = [chosenAt * height, (chosenAt + 1) * height];
    const { top: from, height: room } = seen.current;
    const offset = top < from ? top : bottom > from + room ? bottom - room : from;
    if (room && offset !== from) box.current?.scrollToOffset({ offset, animated: false });
    // Only a new choice brings itself into sight: not a list that changes under it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [chosen]);
  const later = useDeferredValue<Lines | null>(lines, null);
  const laterChosen = later === lines ? chosenAt : (later?.placeOf(chosen) ?? -1);
  // The same for all lines and all the time: a line is made anew only where something of its own changes.
  const latest = useRef(props);
  useEffect(() => {
    latest.current = props;
  });
  const press = useCallback(
    (line: GrooveLine) =>
      line.kind === 'folder' ? latest.current.onFolder(line.folder.path) : latest.current.onChoose(line.row),
    [],
  );
  const turnKept = useCallback((line: GrooveLine) => latest.current.onKeep(line), []);
  // What is chosen by keys has the focus too, as soon as it has come into sight.
  const walked = useRef(false);
  const takesFocus = useCallback(() => {
    const takes = walked.current;
    walked.current = false;
    return takes;
  }, []);
  const keys = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10 }[event.key];
    const to = event.key === 'Home' ? 0 : event.key === 'End' ? lines.count - 1 : chosenAt + (by ?? 0);
    if (by === undefined && event.key !== 'Home' && event.key !== 'End') {
      const line = lines.at(chosenAt);
      if (line && pressedOf(event, ['keepGroove'])) onKeep(line);
      return;
    }
    event.preventDefault();
    const line = lines.at(Math.max(0, Math.min(lines.count - 1, to)));
    if (line?.kind !== 'groove') return;
    walked.current = line.row.id !== chosen;
    onChoose(line.row);
  };
  const render = ({ index }: { index: number }) => {
    const soon = index < AT_ONCE;
    const from = soon ? lines : later;
    const line = from?.at(index);
    if (!from || !line) return null;
    const isChosen = index === (soon ? chosenAt : laterChosen);
    return (
      <LineItem
        line={line}
        at={index}
        size={from.count}
        height={height}
        chosen={isChosen}
        sounding={isChosen && sounding}
        kept={keeps(line)}
        wide={wide}
        columns={columns}
        onPress={press}
        onKeep={turnKept}
        takesFocus={takesFocus}
      />
    );
  };
  return (
    <View style={styles.grooveList} {...({ onKeyDown: keys } as object)}>
      {wide && lines.count ? <Heads {...props} columns={columns} /> : null}
      <FlatList
        ref={box}
        testID="groove scroll"
        style={styles.grooveScroll}
        data={placesTo(lines.count)}
        keyExtractor={keyOf}
        getItemLayout={(_, index) => ({ length: height, offset: index * height, index })}
        initialNumToRender={16}
        windowSize={3}
        onScroll={({ nativeEvent }: NativeSyntheticEvent<NativeScrollEvent>) => {
          seen.current.top = nativeEvent.contentOffset.y;
        }}
        onLayout={({ nativeEvent }: LayoutChangeEvent) => {
          seen.current.height = nativeEvent.layout.height;
        }}
        renderItem={render}
        {...({ role: 'list', 'aria-label': words.grooves } as object)}
      />
    </View>
  );
};
