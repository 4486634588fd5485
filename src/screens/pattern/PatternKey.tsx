import { useEffect, useState } from 'react';
import { KEY_CODE } from '../../../core/document/choices';
import type { Pattern, PatternKey as Key } from '../../../core/document/schema';
import { beatEdited } from '../../store/doc';
import { keyName } from '../../keeping/alongside';
import { useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Chips } from '../../ui/Layout';
import { SwitchWhen } from '../../ui/SwitchWhen';
import { Para } from '../../ui/Words';
import { listen } from '../../web/listen';
import { words } from '../../words/pattern';

/** The key that begins a pattern: learned by pressing it. */
export const PatternKeyPart = ({ pattern }: { pattern: Pattern }) => {
  const act = useDo();
  const [learning, setLearning] = useState(false);
  const { id, key } = pattern;
  const set = (next: Key | null) => act(beatEdited({ edit: { edit: 'setKey', args: { id, key: next } } }));
  useEffect(() => {
    if (!learning) return undefined;
    const hear = (event: KeyboardEvent) => {
      if (event.key === 'Tab') return;
      event.preventDefault();
      event.stopPropagation();
      setLearning(false);
      if (KEY_CODE.test(event.code))
        act(
          beatEdited({
            edit: {
              edit: 'setKey',
              args: { id, key: { at: 'beat', held: false, ...key, code: event.code } },
            },
          }),
        );
    };
    return listen('keydown', hear, { capture: true });
  }, [learning, id, key, act]);
  return (
    <>
      <Chips>
        <Chip pressed={learning} onPress={() => setLearning(!learning)}>
          {learning ? words.pressAKey : key ? words.keyBegins(keyName(key.code)) : words.giveItAKey}
        </Chip>
        {key ? (
          <>
            <Chip pressed={key.held} onPress={() => set({ ...key, held: !key.held })}>
              {words.whileHeld}
            </Chip>
            <Chip onPress={() => set(null)}>{words.noKey}</Chip>
          </>
        ) : null}
      </Chips>
      {key ? (
        <>
          <SwitchWhen value={key.at} onChange={(at) => set({ ...key, at })} />
          <Para quiet>{key.held ? words.playsWhileHeld : words.playsUntilAgain}</Para>
        </>
      ) : null}
    </>
  );
};
