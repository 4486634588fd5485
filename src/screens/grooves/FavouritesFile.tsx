import { Disclosure } from '../../ui/Disclosure';
import { Items, Item } from '../../ui/Layout';
import { Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import type { Catalogue } from '../../../core/groove/catalogue';
import { joinedFavourites, favouritesText, type Favourites } from '../../../core/groove/favourites';
import { groovesChanged } from '../../store/grooves';
import { noticed } from '../../store/slices';
import { useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { FilePick } from '../../web/FilePick';
import { saveText } from '../../ui/files';
import { readAside } from '../../workers/aside';
import { words } from '../../words/grooves';

interface KeepersFileProps {
  keepers: Favourites;
  rows: Catalogue;
}

/** Keepers to a file and back; those whose grooves are elsewhere are named. */
export const FavouritesFile = ({ keepers, rows }: KeepersFileProps) => {
  const act = useDo();
  const away = keepers.grooves.filter(({ id }) => !rows.byId.has(id));
  const open = async (name: string, bytes: Uint8Array) => {
    const read = await readAside('readFavourites', new TextDecoder().decode(bytes));
    if (!read.ok) {
      act(noticed({ text: words.nameWasNotTakenIn(name, read.error), tone: 'danger', subject: 'keepers' }));
      return;
    }
    const joined = joinedFavourites(keepers, read.value);
    const added =
      joined.grooves.length + joined.folders.length - keepers.grooves.length - keepers.folders.length;
    act(groovesChanged({ keepers: joined }));
    act(noticed({ text: words.fromName(added, name), subject: 'keepers' }));
  };
  return (
    <>
      <View style={styles.importWays}>
        <Chip
          disabled={!keepers.grooves.length && !keepers.folders.length}
          onPress={() => saveText(favouritesText(keepers), 'keepers.json')}
        >
          {words.saveKeepers}
        </Chip>
        <FilePick
          label={words.keepersFile}
          accept=".json,application/json"
          onFile={(name, bytes) => void open(name, bytes)}
        >
          {words.openKeepers}
        </FilePick>
      </View>
      {away.length ? (
        <Disclosure title={words.notHere(away.length)} style={styles.folderNote}>
          <Items>
            {away.map(({ id, name }) => (
              <Item key={id}>
                <Words>{name}</Words>
              </Item>
            ))}
          </Items>
        </Disclosure>
      ) : null}
    </>
  );
};
