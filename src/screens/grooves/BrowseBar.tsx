import { Page } from '../../ui/Page';
import { SearchField } from '../../ui/SearchField';
import { Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useState } from 'react';
import {
  countsOf,
  FIELD_NAMES,
  FIELDS,
  isWithin,
  SORT_NAMES,
  SORTS,
  type Catalogue,
  type Field,
  type Shown,
} from '../../../core/groove/catalogue';
import { count } from '../../../core/document/text';
import type { GrooveRow } from '../../../core/groove/groove';
import { groovesChanged, type GroovesState } from '../../store/grooves';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { IconButton } from '../../ui/IconButton';
import { Tabs } from '../../ui/Tabs';
import { takeOff } from './takeOff';
import { words } from '../../words/grooves';

const VIEWS: { id: GroovesState['view']; name: string }[] = [
  { id: 'list', name: words.all },
  { id: 'folders', name: words.folders },
  { id: 'keepers', name: words.keepers },
];

/** All grooves, folders to walk through, or those that were kept. */
export const Views = () => {
  const view = useApp((state) => state.grooves.view);
  const act = useDo();
  return (
    <Tabs
      label={words.whichGrooves}
      tabs={VIEWS}
      value={view}
      onChange={(id) => act(groovesChanged({ view: id }))}
    />
  );
};

interface SearchProps {
  catalogue: Catalogue;
  shown: Shown;
  wide: boolean;
}

const FieldChoice = ({ field, catalogue, shown }: { field: Field } & Omit<SearchProps, 'wide'>) => {
  const filters = useApp((state) => state.grooves.filters);
  const act = useDo();
  const set = (word: string) => {
    const { [field]: _gone, ...rest } = filters;
    act(groovesChanged({ filters: word ? { ...rest, [field]: word } : rest }));
  };
  const counts = countsOf(catalogue, shown, field);
  const counted = catalogue.fields[field].words
    .map((word, at) => ({ word, count: counts[at]! }))
    .filter(({ word, count }) => count > 0 || filters[field] === word);
  return (
    <Choice
      label={FIELD_NAMES[field]}
      short={FIELD_NAMES[field]}
      value={filters[field] ?? ''}
      options={[
        { value: '', name: words.any },
        ...counted.map(({ word, count }) => ({ value: word, name: `${word} (${count})` })),
      ]}
      onChange={set}
    />
  );
};

const SortChoice = () => {
  const { sort, down } = useApp((state) => state.grooves);
  const act = useDo();
  return (
    <View style={styles.sortChoice}>
      <Choice
        label={words.sortBy}
        short={words.sortBy}
        value={sort}
        options={SORTS.map((value) => ({ value, name: SORT_NAMES[value] }))}
        onChange={(value) => act(groovesChanged({ sort: value }))}
      />
      <Chip
        label={down ? words.fallingTurnRound : words.risingTurnRound}
        onPress={() => act(groovesChanged({ down: !down }))}
      >
        {down ? '↓' : '↑'}
      </Chip>
    </View>
  );
};

/** Words to look for, and what the list is narrowed by. */
export const Search = ({ catalogue, shown, wide }: SearchProps) => {
  const { query, filters } = useApp((state) => state.grooves);
  const [open, setOpen] = useState(false);
  const act = useDo();
  const count = Object.keys(filters).length;
  return (
    <>
      <View style={styles.grooveSearch}>
        <SearchField
          label={words.searchGrooves}
          placeholder={words.searchNamesAndTags}
          value={query}
          onType={(query) => act(groovesChanged({ query }))}
        />
        <Chip label={words.filters} pressed={open} onPress={() => setOpen(!open)}>
          {count ? words.filtersCount(count) : words.filters}
        </Chip>
      </View>
      {open ? (
        <Page style={styles.filters} inner={styles.grooveFilters}>
          {FIELDS.map((field) => (
            <View key={field} style={styles.filter}>
              <FieldChoice field={field} catalogue={catalogue} shown={shown} />
            </View>
          ))}
          {wide ? null : <SortChoice />}
        </Page>
      ) : null}
      <View style={styles.narrowed}>
        <Words small quiet live>
          {words.manyOfMany2Grooves(shown.order.length, catalogue.rows.length)}
        </Words>
        {/* Its room is always there: the list is not pushed about by a first letter. */}
        <View style={!count && !query && styles.unseen}>
          <Chip disabled={!count && !query} onPress={() => act(groovesChanged({ filters: {}, query: '' }))}>
            {words.showAll}
          </Chip>
        </View>
      </View>
    </>
  );
};

/** Where one is among the folders, and the way up. */
export const PathBar = ({ path, rows }: { path: string[]; rows: GrooveRow[] }) => {
  const act = useDo();
  const imported = path.length
    ? rows.filter((row) => row.source === 'imported' && isWithin(row.path, path))
    : [];
  const go = (to: string[]) => act(groovesChanged({ path: to }));
  return (
    <View role="navigation" style={styles.pathBar} aria-label={words.folder}>
      <IconButton
        label={words.up}
        icon="left"
        disabled={!path.length}
        onPress={() => go(path.slice(0, -1))}
      />
      <Chip onPress={() => go([])}>{words.allFolders}</Chip>
      {path.map((name, at) => (
        <View key={`${at} ${name}`} style={styles.pathPart}>
          <Words unsaid>/</Words>
          <Chip onPress={() => go(path.slice(0, at + 1))}>{name}</Chip>
        </View>
      ))}
      {imported.length ? (
        <Chip
          tone="danger"
          onPress={() => {
            go(path.slice(0, -1));
            void takeOff(
              imported.map(({ id }) => id),
              count(imported.length, 'groove'),
            );
          }}
        >
          {words.takeItsOffTheList(imported.length)}
        </Chip>
      ) : null}
    </View>
  );
};
