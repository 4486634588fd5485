import { Page as Scrolled } from '../../ui/Page';
import { DropEntries } from '../../web/DropEntries';
import { Para, Words } from '../../ui/Words';
import { Disclosure } from '../../ui/Disclosure';
import { Items, Item, ScreenHead } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { useKept } from '../../ui/useKept';
import type { GROOVE_PAGES } from '../pages';
import { useEffect, useMemo, useState } from 'react';
import { count } from '../../../core/document/text';
import {
  browse,
  foldersIn,
  isWithin,
  type Catalogue,
  type Folder,
  type Sort,
} from '../../../core/groove/catalogue';
import { keepsFolder, keepsGroove, toggleFolder, toggleGroove } from '../../../core/groove/favourites';
import type { GrooveRow } from '../../../core/groove/groove';
import { groovesChanged, type GroovesState } from '../../store/grooves';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { useWide } from '../../ui/useWide';
import { choose, onEnd, play, stopHearing, useAudition, useHeard } from './audition';
import { PathBar, Search, Views } from './BrowseBar';
import { GrooveBar } from './GrooveBar';
import { GrooveList } from './GrooveList';
import { GroovePage } from './GroovePage';
import { HearOptions } from './HearOptions';
import { ImportPanel, useImport } from './ImportPanel';
import { FavouritesFile } from './FavouritesFile';
import { linesOf, type GrooveLine } from './lines';
import { Overview } from './Overview';
import { MapsPage } from './MapsPage';
import { shelf, useShelf } from './shelf';
import { words } from '../../words/grooves';

/** Which rows there are to choose from, before they are narrowed: all, those of a folder, or those that are kept. */
const amongOf = (
  catalogue: Catalogue,
  { view, path, keepers, query, filters }: GroovesState,
): Uint8Array | null => {
  if (view === 'list') return null;
  const mask = new Uint8Array(catalogue.rows.length);
  if (view === 'keepers') {
    for (const { id } of keepers.grooves) {
      const at = catalogue.byId.get(id);
      if (at !== undefined) mask[at] = 1;
    }
    return mask;
  }
  // Looked for within a folder, all that lies in it however deep is meant; else what lies right in it.
  const deep = query.trim() !== '' || Object.keys(filters).length > 0;
  catalogue.rows.forEach((row, at) => {
    if (isWithin(row.path, path) && (deep || row.path.length === path.length)) mask[at] = 1;
  });
  return mask;
};

const both = (a: Uint8Array | null, scores: Float32Array | undefined): Uint8Array | null =>
  scores ? Uint8Array.from(scores, (score, at) => (score > 0 && (!a || a[at]) ? 1 : 0)) : a;

/** What the list shows. */
const useLines = (catalogue: Catalogue, status: string) => {
  const grooves = useApp((state) => state.grooves);
  const { view, path, keepers, filters, sort, down } = grooves;
  const { query } = grooves;
  const found = useMemo(
    () => shelf.found(query),
    // What is searched changes with the shelf.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [query, catalogue, status],
  );
  const among = useMemo(
    () => amongOf(catalogue, { ...grooves, view, path, keepers, query, filters }),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [catalogue, view, path, keepers, query, filters],
  );
  const shown = useMemo(
    // By name is how the list stands when nobody chose: what was asked for comes the likeliest first then.
    () =>
      browse(catalogue, {
        among: both(among, found?.scores),
        filters,
        sort,
        down,
        ...(found && sort === 'name' && !down && { scores: found.scores }),
      }),
    [catalogue, among, found, filters, sort, down],
  );
  const lines = useMemo(() => {
    const only = (folders: Folder[]) => linesOf(folders, shown.order, catalogue);
    if (query.trim() || Object.keys(filters).length || view === 'list') return only([]);
    if (view === 'folders') return only(foldersIn(catalogue.rows, path));
    const kept = (place: string[]): Folder[] =>
      foldersIn(catalogue.rows, place.slice(0, -1)).filter(({ name }) => name === place[place.length - 1]);
    return only(keepers.folders.flatMap(kept));
  }, [shown, catalogue, query, filters, view, keepers, path]);
  return { shown, lines, near: found?.near ?? false };
};

const EMPTY: Record<GroovesState['view'], string> = {
  list: words.noGrooveMatches,
  folders: words.thisFolderIsEmpty,
  keepers: words.yourKeepersShowUpHere,
};

const FolderNote = () => {
  const { folder } = useShelf();
  if (folder.kind === 'away')
    return (
      <View style={styles.folderNote}>
        <Para live>{words.theServersGrooveFolderIs}</Para>
        <Chip onPress={() => void shelf.lookAgain()}>{words.tryNow}</Chip>
      </View>
    );
  if (folder.kind === 'there' && folder.left.length)
    return (
      <Disclosure title={words.ofTheGrooveFolderCould(folder.left.length)} style={styles.folderNote}>
        <Items>
          {folder.left.map(({ path, why }) => (
            <Item key={path}>
              <Words>{`${path}: ${why}`}</Words>
            </Item>
          ))}
        </Items>
      </Disclosure>
    );
  return null;
};

type Page = (typeof GROOVE_PAGES)[number];

/** Grooves: looked through, heard in time with the beat, kept, and brought in. */
export const GroovesScreen = () => {
  const { catalogue, status } = useShelf();
  const grooves = useApp((state) => state.grooves);
  const { chosen, keepers, view, path, sort, down, atOnce } = grooves;
  const heard = useHeard();
  const wide = useWide();
  const act = useDo();
  const [page, setPage] = useKept<Page>('grooves page', 'list');
  const [hearing, setHearing] = useState(false);
  const importing = useImport();
  useAudition();
  const { shown, lines, near } = useLines(catalogue, status);

  const listed = lines.count > 0 || catalogue.rows.length > 0;

  const at = lines.placeOf(chosen);
  const rowAt = (index: number): GrooveRow | null => {
    const line = lines.at(index);
    return line?.kind === 'groove' ? line.row : null;
  };
  const [previous, next] = [rowAt(at - 1), rowAt(at + 1)];
  const take = (row: GrooveRow) => {
    if (row.id === heard.groove?.id && row.id === chosen) {
      if (heard.sounding) stopHearing();
      else play();
      return;
    }
    act(groovesChanged({ chosen: row.id }));
    void choose(row.id, atOnce || heard.sounding);
  };
  useEffect(() => {
    onEnd(next ? () => take(next) : null);
    return () => onEnd(null);
  });
  useEffect(() => {
    if (status === 'ready' && chosen && !heard.groove && catalogue.byId.has(chosen))
      void choose(chosen, false);
  }, [status, chosen, heard.groove, catalogue]);

  const keeps = (line: GrooveLine) =>
    line.kind === 'folder' ? keepsFolder(keepers, line.folder.path) : keepsGroove(keepers, line.row.id);
  const keep = (line: GrooveLine) =>
    act(
      groovesChanged({
        keepers:
          line.kind === 'folder' ? toggleFolder(keepers, line.folder.path) : toggleGroove(keepers, line.row),
      }),
    );
  const sortBy = (by: Sort) => act(groovesChanged(by === sort ? { down: !down } : { sort: by, down: false }));

  const details = heard.groove ? <GroovePage key={heard.groove.id} groove={heard.groove} /> : null;
  const list = (
    <DropEntries onEntries={importing.take}>
      <View style={styles.grooveBrowse}>
        <Views />
        <Search catalogue={catalogue} shown={shown} wide={wide} />
        {view === 'folders' ? <PathBar path={path} rows={catalogue.rows} /> : null}
        {view === 'keepers' ? <FavouritesFile keepers={keepers} rows={catalogue} /> : null}
        <FolderNote />
        <ImportPanel importing={importing} />
        {lines.count ? null : (
          <Para quiet style={styles.empty} live>
            {status === 'loading' && !catalogue.rows.length ? words.lookingForGrooves : EMPTY[view]}
          </Para>
        )}
        {near && lines.count ? (
          <Para quiet live style={styles.empty}>
            {words.nothingButNear(grooves.query.trim())}
          </Para>
        ) : null}
        {listed ? (
          // It stays where a search finds nothing: the next letter may find something again.
          <GrooveList
            lines={lines}
            place={JSON.stringify([view, path, grooves.query, grooves.filters, sort, down])}
            chosen={chosen}
            chosenAt={at}
            sounding={heard.sounding}
            keeps={keeps}
            onChoose={take}
            onFolder={(to) => act(groovesChanged({ view: 'folders', path: to, query: '', filters: {} }))}
            onKeep={keep}
            wide={wide}
            sort={sort}
            down={down}
            onSort={sortBy}
          />
        ) : null}
      </View>
    </DropEntries>
  );
  const shownPage = wide && page === 'groove' ? 'list' : page;
  return (
    <View style={styles.groovesScreen}>
      <ScreenHead
        title={shownPage === 'maps' ? words.drumMaps : words.grooves}
        style={styles.head}
        under={
          <Words small quiet lines={1}>
            {shownPage === 'maps' ? words.whichDrumANoteIs : count(catalogue.rows.length, 'groove')}
          </Words>
        }
      >
        {shownPage === 'list' ? (
          <>
            <Chip
              label={words.hearingHowGroovesAreHeard}
              pressed={hearing}
              onPress={() => setHearing(!hearing)}
            >
              {words.hearing}
            </Chip>
            <Chip onPress={() => setPage('maps')}>{words.maps}</Chip>
            <Chip label={words.openFilesMidi} onPress={importing.chooseFiles}>
              {words.openFiles}
            </Chip>
          </>
        ) : (
          <IconButton label={words.backToTheGrooves} icon="close" onPress={() => setPage('list')} />
        )}
      </ScreenHead>
      {hearing && shownPage === 'list' ? <HearOptions /> : null}
      {shownPage === 'maps' ? (
        <MapsPage heard={heard.groove} />
      ) : wide ? (
        <View style={styles.groovesBody}>
          {list}
          <Scrolled role="complementary" style={styles.panelWide} label={words.groove}>
            {details ?? <Overview catalogue={catalogue} shown={shown} />}
          </Scrolled>
        </View>
      ) : shownPage === 'groove' && details ? (
        <Scrolled>{details}</Scrolled>
      ) : (
        list
      )}
      {shownPage === 'maps' ? null : (
        <GrooveBar
          onPrevious={previous && (() => take(previous))}
          onNext={next && (() => take(next))}
          onOpen={wide || shownPage === 'groove' ? null : () => setPage('groove')}
        />
      )}
      {importing.fields}
    </View>
  );
};
