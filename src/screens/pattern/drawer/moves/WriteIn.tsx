import { useState } from 'react';
import type { Pattern } from '../../../../../core/document/schema';
import { hasMoves, passesThatFit } from '../../../../../core/edit/moves';
import { lateEdits } from '../../../../store/deferredEdits';
import { noticed } from '../../../../store/slices';
import { selectBeat, selectPattern, useApp, useAppStore, useDo } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Chips, Group } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { edit } from '../edit';

/** Writing in, at once where it sounds the same; else what cannot be the same is named first, with a choice. */
export const WriteIn = () => {
  const store = useAppStore();
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const any = useApp((state) => {
    const beat = selectBeat(state)!;
    return beat.lanes.some(({ id }) => hasMoves(beat, selectPattern(state)!, id));
  });
  const [asked, setAsked] = useState<{ told: string; pattern: Pattern } | null>(null);
  const write = (passes?: number) => {
    setAsked(null);
    edit('writeMoves', passes === undefined ? {} : { passes });
  };
  const tell = ({ writtenMoves }: Awaited<ReturnType<typeof lateEdits>>) => {
    const beat = selectBeat(store.getState())!;
    const { same, told } = writtenMoves(beat, pattern);
    if (!same) return setAsked({ told: told.join(' '), pattern });
    write();
    if (told.length) act(noticed({ text: told.join(' '), subject: 'moves' }));
  };
  // Where the edits cannot be fetched now, this one waits for them, and that is said.
  const begin = () => void lateEdits().then(tell, () => write());
  // What was asked of a pattern that has changed since is asked no more.
  const open = asked?.pattern === pattern ? asked : null;
  return (
    <>
      <Chips>
        <Chip disabled={!any} onPress={begin}>
          {words.writeMoves}
        </Chip>
      </Chips>
      <Para quiet>{any ? words.writeMovesAbout : words.nothingToWrite}</Para>
      {open ? (
        <Group title={words.notTheSameTitle}>
          <Para live>{open.told.replace(/ What the first pass has was written\.$/, '')}</Para>
          <Chips>
            {passesThatFit(pattern).map((passes) => (
              <Chip key={passes} onPress={() => write(passes)}>
                {words.writePasses(passes, passes * pattern.bars)}
              </Chip>
            ))}
            <Chip onPress={() => write()}>{words.writeFirstPass}</Chip>
            <Chip onPress={() => setAsked(null)}>{words.keepMoves}</Chip>
          </Chips>
        </Group>
      ) : null}
    </>
  );
};
