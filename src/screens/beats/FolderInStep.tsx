import { useSyncExternalStore } from 'react';
import { Action } from '../../ui/Action';
import { Chips } from '../../ui/Layout';
import { Para } from '../../ui/Words';
import { hasFolders } from '../../web/folderHandle';
import { words } from '../../words/beats';
import { keepInFolder, folderState, goOn, letGoOfFolder, onFolderState, stepNow } from './folderSteps';

/** A folder of one's own that holds every beat as a file. */
export const FolderInStep = () => {
  const { name, asks, told } = useSyncExternalStore(onFolderState, folderState);
  if (!hasFolders()) return null;
  if (!name)
    return (
      <>
        <Chips>
          <Action label={words.keepAFolder} kind="outline" onPress={() => void keepInFolder()} />
        </Chips>
        <Para quiet>{words.folderAbout}</Para>
      </>
    );
  return (
    <>
      <Para live>{asks ? words.folderAsks(name) : words.folderKept(name, told ?? '')}</Para>
      <Chips>
        {asks ? (
          <Action label={words.goOnWith(name)} kind="outline" onPress={() => void goOn(true)} />
        ) : (
          <Action label={words.stepNow} kind="outline" onPress={() => void stepNow()} />
        )}
        <Action label={words.letFolderGo} kind="outline" onPress={() => void letGoOfFolder()} />
      </Chips>
    </>
  );
};
