import { shortKeyText } from './keyList';
import { ListItem } from '@rneui/base/dist/ListItem';
import { useRouter, usePathname } from 'expo-router';
import { useState, type KeyboardEvent } from 'react';
import { FlatList, StyleSheet, View } from 'react-native';
import { Chip } from '../../ui/Chip';
import { Sheet } from '../../ui/Sheet';
import { TextField } from '../../ui/TextField';
import { colour, TARGET } from '../../ui/tokens';
import { useWide } from '../../ui/useWide';
import { Words } from '../../ui/Words';
import type { Command } from './commands';
import { findCommands } from './findCommand';
import { words } from '../../words/frame';

const styles = StyleSheet.create({
  head: { flexDirection: 'row', gap: 8, alignItems: 'center', marginBottom: 8 },
  list: { maxHeight: 480 },
  row: {
    minHeight: TARGET,
    paddingHorizontal: 12,
    paddingVertical: 6,
    gap: 12,
    backgroundColor: 'transparent',
    borderRadius: 8,
  },
  on: { backgroundColor: colour.ground },
  name: { flexGrow: 1, flexShrink: 1 },
});

interface CommandSheetProps {
  onClose: () => void;
  /** Opens the list of all keys. */
  onKeys: () => void;
}

const rowId = (at: number) => `command-${at}`;

/** Every function by its name: typed, found, done. */
export const CommandSheet = ({ onClose, onKeys }: CommandSheetProps) => {
  const [asked, setAsked] = useState('');
  const [at, setAt] = useState(0);
  const router = useRouter();
  const path = usePathname();
  const found = findCommands(asked);
  // Who has a finger only has no keys to learn.
  const wide = useWide();
  const run = (command: Command | undefined) => {
    if (!command) return;
    onClose();
    if (command.on && command.on !== path) router.push(command.on);
    command.run();
  };
  const keys = (event: KeyboardEvent) => {
    const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (by === undefined || !found.length) return;
    event.preventDefault();
    const next = (at + by + found.length) % found.length;
    setAt(next);
  };
  return (
    <Sheet title={words.findACommand} open onClose={onClose}>
      <View {...({ onKeyDownCapture: keys } as object)}>
        <View style={styles.head}>
          <TextField
            label={words.whatDoYouWantTo}
            placeholder={words.swingFlamDoubleStems}
            value={asked}
            focused
            onType={(text) => {
              setAsked(text);
              setAt(0);
            }}
            onEnter={() => run(found[at])}
            more={{
              role: 'combobox',
              'aria-expanded': true,
              'aria-controls': 'commands',
              'aria-activedescendant': found.length ? rowId(at) : undefined,
            }}
          />
          <Chip
            onPress={() => {
              onClose();
              onKeys();
            }}
          >
            {words.allKeys}
          </Chip>
        </View>
        {found.length ? (
          <FlatList
            data={found}
            keyExtractor={({ name, of }) => `${of} ${name}`}
            style={styles.list}
            initialNumToRender={14}
            {...({
              role: 'listbox',
              nativeID: 'commands',
              'aria-label': words.commands,
              tabIndex: -1,
            } as object)}
            renderItem={({ item, index }) => (
              <ListItem
                onPress={() => run(item)}
                containerStyle={[styles.row, index === at && styles.on]}
                {...({
                  role: 'option',
                  nativeID: rowId(index),
                  'aria-selected': index === at,
                  tabIndex: -1,
                } as object)}
              >
                <Words style={styles.name}>{item.name}</Words>
                {wide && item.key ? (
                  <Words figure quiet>
                    {shortKeyText(item.key)}
                  </Words>
                ) : null}
                <Words small quiet>
                  {item.of}
                </Words>
              </ListItem>
            )}
          />
        ) : (
          <Words quiet live>
            {words.nothingIsCalledAskedTry(asked)}
          </Words>
        )}
      </View>
    </Sheet>
  );
};
