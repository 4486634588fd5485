import { Para, Words } from '../../ui/Words';
import { Items, Item } from '../../ui/Layout';
import { Press } from '../../ui/Press';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import type { Beat } from '../../../core/document/schema';
import { atHand, FORMS, songOf } from '../../../core/edit/forms';
import { noticed } from '../../store/slices';
import { useDo, useAppStore } from '../../store/store';
import { Sheet } from '../../ui/Sheet';
import { editSong } from './edit';
import { words } from '../../words/song';

/** Forms of songs, filled with what lies in the tray. */
export const FormsSheet = ({ beat, onClose }: { beat: Beat; onClose: () => void }) => {
  const store = useAppStore();
  const act = useDo();
  const names = atHand(beat).map((id) => beat.patterns.find((pattern) => pattern.id === id)!.name);
  const take = (at: number) => {
    const form = FORMS[at]!;
    const had = beat.song.order.length > 0;
    editSong({ edit: 'setSong', args: { song: songOf(beat, form, nanoid) } });
    const undo = { label: words.undo, does: { kind: 'undo', at: store.getState().doc.past.length } } as const;
    act(
      noticed({
        text: words.theSongIsNowForm(form.name, had),
        subject: 'form',
        action: undo,
      }),
    );
    onClose();
  };
  return (
    <Sheet title={words.forms} open onClose={onClose}>
      <Para quiet>
        {words.filledWithInOrder(
          !!beat.tray.length,
          names.slice(0, 6).join(', '),
          names.length > 6 ? ', …' : '',
        )}
        {names.length > 1 ? words.theLastNameIsThe(names[names.length - 1]!) : words.withASecondPatternThere}
      </Para>
      <Items label={words.forms}>
        {FORMS.map(({ id, name, about }, at) => (
          <Item key={id}>
            <Press style={styles.form} onPress={() => take(at)}>
              <Words bold>{name}</Words>
              <Words small quiet>
                {about}
              </Words>
            </Press>
          </Item>
        ))}
      </Items>
    </Sheet>
  );
};
