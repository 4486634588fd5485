import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import type { Read } from '../../core/document/file';
import { feelAsPlayed, type PlayedFeel } from '../../core/analysis/playedFeel';
import { playedLines } from '../../core/analysis/playedText';
import { feelOf } from '../../core/document/defaults';
import { beatEdited } from '../store/doc';
import { noticed } from '../store/slices';
import { selectBeat, selectPattern, type Store, useAppStore } from '../store/store';
import { Chip } from '../ui/Chip';
import { Chips } from '../ui/Layout';
import { Para } from '../ui/Words';
import { askPlayed } from '../workers/askReport';
import type { ReportSource } from '../workers/reportOf';
import { words } from '../words/players';

/** Plays the pattern as something was played: one step of the history. */
export const playAs = (store: Store, name: string, played: PlayedFeel): void => {
  const beat = selectBeat(store.getState());
  const pattern = selectPattern(store.getState());
  if (!beat || !pattern) return;
  const gesture = `play as ${nanoid()}`;
  const template = { ...played.shape, id: nanoid(), name: name.slice(0, 80) };
  store.dispatch(beatEdited({ edit: { edit: 'keepTemplate', args: { template } }, gesture }));
  const feel = feelAsPlayed(feelOf(beat, pattern), beat.lanes, template, played);
  store.dispatch(beatEdited({ edit: { edit: 'useFeel', args: { patternId: pattern.id, feel } }, gesture }));
  store.dispatch(noticed({ text: words.playsAs(name), subject: 'feel' }));
};

/** How something is played, how sure that is, and the pattern played so. */
export const AsPlayed = ({ name, source }: { name: string; source: ReportSource }) => {
  const store = useAppStore();
  const [got, setGot] = useState<{ of: ReportSource; read: Read<PlayedFeel> } | null>(null);
  useEffect(() => {
    let wanted = true;
    void askPlayed(name, source).then((read) => wanted && setGot({ of: source, read }));
    return () => {
      wanted = false;
    };
  }, [name, source]);
  const read = got?.of === source ? got.read : null;
  if (!read) return <Para quiet>{words.listening}</Para>;
  if (!read.ok) return <Para quiet>{read.error}</Para>;
  return (
    <>
      {playedLines(read.value).map((line) => (
        <Para key={line} quiet>
          {line}
        </Para>
      ))}
      <Chips>
        <Chip label={words.playLikeName(name)} onPress={() => playAs(store, name, read.value)}>
          {words.playLikeThis}
        </Chip>
      </Chips>
    </>
  );
};
