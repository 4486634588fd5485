import { useHandsFollowed } from '../../strings/handsShown';
import { usePathname } from 'expo-router';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useState, type ReactNode } from 'react';
import { undone } from '../../store/doc';
import { accept } from '../../store/offers';
import { persistence, store, tellScreenReady } from '../../keeping/session';
import { noticed, type NoticeAction } from '../../store/slices';
import { useApp } from '../../store/store';
import { saveText } from '../../ui/files';
import { saveBeat } from '../saveBeats';
import { Later } from '../../ui/Later';
import { HelpContext } from '../../ui/help';
import { PlayContext } from '../../ui/playing';
import { SayContext } from '../../ui/say';
import { Themed } from '../../ui/Themed';
import { useEarly } from './early';
import { ErrorFallback } from './ErrorFallback';
import { Notices } from './Notices';
import { ScreenTabs } from './Tabs';
import { Transport } from './Transport';
import { useFocusKept } from '../../web/focusKept';
import { drawPageBy, listen, onPage } from '../../web/listen';
import { useKeys } from './keys';
import { wasSent } from '../../web/handedOver';
import { stands } from '../../web/startAgain';
import { useStrayDrops } from '../../web/strayDrop';
import { useWide } from '../../ui/useWide';
import { togglePlay, togglePlayLed, useClick, useSongEnd, useSound, useTrouble } from './sound';
import { words } from '../../words/frame';

/** Only the edit that was spoken of is taken back, not one that came after it. */
const takeBack = (at: number): void => {
  if (store.getState().doc.past.length === at) store.dispatch(undone());
  else
    store.dispatch(
      noticed({
        text: words.otherChangesCameAfterIt,
        subject: 'undo',
      }),
    );
};

const does = async (action: NoticeAction): Promise<void> => {
  if (action.kind === 'restoreBeat') await persistence.restore(action.id);
  if (action.kind === 'downloadAside')
    saveText(await persistence.asideText(action.key), 'damaged-beat.ruddik.json.txt');
  if (action.kind === 'openAside') await persistence.openAside(action.key);
  if (action.kind === 'undo') takeBack(action.at);
  if (action.kind === 'offer') accept(action.id);
  const { beat } = store.getState().doc;
  if (action.kind === 'saveBeat' && beat) {
    await saveBeat(beat);
    persistence.taken(beat);
  }
};

/** Day or night as chosen, or as the system has it. */
const useTheme = () => {
  const theme = useApp((state) => state.look.theme);
  const ready = useApp((state) => state.library.status === 'ready');
  useEffect(() => {
    if (!ready) return;
    drawPageBy(theme);
    try {
      // Only a copy, read before the page is painted; the setting itself is kept with all the others.
      if (theme === 'system') localStorage.removeItem('ruddik-theme');
      else localStorage.setItem('ruddik-theme', theme);
    } catch {
      // Where the browser bars it, the theme comes a moment later.
    }
  }, [theme, ready]);
  return theme;
};

const useKeeping = () => {
  useEffect(() => {
    stands();
    tellScreenReady();
  }, []);
  useEffect(() => {
    const ends = [
      onPage((shown) => {
        void persistence.flush();
        if (shown) persistence.wake();
      }),
      listen('beforeunload', (event) => {
        if (!persistence.isSafe()) event.preventDefault();
      }),
      listen('pointerdown', () => void navigator.storage?.persist?.(), { once: true }),
    ];
    return () => ends.forEach((end) => end());
  }, []);
};

/** Ports that were wanted before are there again with the app. */
const usePorts = () => {
  const wanted = useApp(({ input }) => input.ports);
  useEffect(() => {
    if (!wanted) return;
    void import('../later')
      .then(({ openPorts }) => openPorts(togglePlayLed))
      .then((live) => (store.getState().input.machinePorts ? live.askMachine() : null))
      .catch(() => undefined);
  }, [wanted]);
};

/** The app is kept when all else is done: what it fetches for that would stand in the way. */
const INSTALL_MS = 4000;

const useInstalled = () => {
  useEffect(() => {
    const timer = setTimeout(
      () =>
        void import('../later')
          .then(({ install, goOnWithFolder }) => Promise.all([install(), goOnWithFolder(false)]))
          .catch(() => undefined),
      wasSent() ? 0 : INSTALL_MS,
    );
    return () => clearTimeout(timer);
  }, []);
};

const keysSheet = async () => (await import('../later')).KeysSheet;
const commandSheet = async () => (await import('../later')).CommandSheet;

const sayIt = (text: string, subject: string): void => {
  store.dispatch(noticed({ text, subject }));
};

/** What stands around every screen. */
export const Frame = ({ children }: { children: ReactNode }) => {
  const [help, setHelp] = useState(false);
  const [showHelp] = useState(() => () => setHelp(true));
  const [finding, setFinding] = useState(false);
  const [showFind] = useState(() => () => setFinding(true));
  const theme = useTheme();
  const wide = useWide();
  useKeeping();
  useSound();
  useClick();
  useHandsFollowed();
  useSongEnd();
  useTrouble();
  useKeys(showHelp, showFind);
  useInstalled();
  usePorts();
  useStrayDrops();
  useFocusKept(usePathname());
  useEarly();
  return (
    <Themed theme={theme}>
      <HelpContext value={showFind}>
        <SayContext value={sayIt}>
          <View nativeID="frame" style={[styles.frame, wide && styles.frameWide]}>
            <View style={styles.stage}>
              <Notices onAction={(action) => void does(action)} />
              <View role="main" style={styles.main}>
                <PlayContext value={togglePlay}>
                  <ErrorFallback>{children}</ErrorFallback>
                </PlayContext>
              </View>
              <Transport />
            </View>
            <ScreenTabs />
          </View>
          {help ? (
            <Later
              of={keysSheet}
              what={words.theListOfKeys}
              waiting={null}
              given={{ onClose: () => setHelp(false) }}
            />
          ) : null}
          {finding ? (
            <Later
              of={commandSheet}
              what={words.theListOfCommands}
              waiting={null}
              given={{ onClose: () => setFinding(false), onKeys: showHelp }}
            />
          ) : null}
        </SayContext>
      </HelpContext>
    </Themed>
  );
};
