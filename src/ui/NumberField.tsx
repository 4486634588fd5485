import { selectAllText, selectAllOf } from './field';
import { Input } from '@rneui/base/dist/Input';
import { use, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { StyleSheet, View, type TextInput } from 'react-native';
import { passOn } from './passOn';
import { SayContext } from './say';
import { useRne } from './Themed';
import { colour, CORNER, font, TARGET } from './tokens';
import { Words } from './Words';
import { words } from '../words/ui';

interface NumberFieldProps {
  label: string;
  value: number;
  least: number;
  most: number;
  /** What the unit is called below the figure. */
  under: string;
  /** Behind the figure, such as " %". */
  unit?: string;
  /** How much an arrow key or eight points of a drag change. */
  step?: number;
  width: number;
  /** It shows its figure, and nothing changes it. */
  locked?: boolean;
  /** Gets what was asked for, held to the range, which is said; `gesture` is the same all through one drag. */
  onChange: (value: number, gesture?: string) => void;
}

const shown = (value: number): string => String(Math.round(value * 100) / 100);

/** What a person typed as a number: a comma counts as a point, a unit behind it is passed over. */
const typed = (text: string): number => Number.parseFloat(text.replace(',', '.'));

const DRAG_POINTS = 4;

const styles = StyleSheet.create({
  field: {
    position: 'relative',
    flexShrink: 1,
    minWidth: 56,
    touchAction: 'none',
    cursor: 'ns-resize',
  } as object,
  container: { paddingHorizontal: 0 },
  input: { borderBottomWidth: 0, minHeight: TARGET },
  figure: {
    fontFamily: font.figures,
    fontSize: 17,
    width: '100%',
    minHeight: TARGET,
    paddingHorizontal: 4,
    paddingTop: 0,
    paddingBottom: 14,
    borderRadius: CORNER,
    color: colour.text,
    cursor: 'inherit',
  } as object,
  under: { position: 'absolute', left: 4, bottom: 0, fontSize: 12, lineHeight: 15, pointerEvents: 'none' },
});

/** A figure to type, to drag up and down, or to change by the arrow keys. */
export const NumberField = (props: NumberFieldProps) => {
  const { label, value, least, most, under, unit = '', step = 1, width, locked = false, onChange } = props;
  const [draft, setDraft] = useState<string | null>(null);
  const drag = useRef<{ y: number; from: number; gesture: string; moved: boolean } | null>(null);
  const input = useRef<TextInput>(null);
  const say = use(SayContext);
  const rne = useRne();

  /** What is out of range is held to it, and that is said. */
  const give = (asked: number) => {
    const kept = Math.min(most, Math.max(least, asked));
    if (kept !== asked) say(words.labelGoesFromLeastTo(label, least, most, shown(asked), kept), label);
    if (kept !== value || kept === asked) onChange(kept);
  };

  const take = () => {
    if (!locked && draft !== null && Number.isFinite(typed(draft))) give(typed(draft));
    setDraft(null);
  };

  const keys = (event: KeyboardEvent) => {
    if (locked) return passOn(event);
    const by = { ArrowUp: step, ArrowDown: -step, PageUp: 10 * step, PageDown: -10 * step }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      setDraft(null);
      give(value + by);
    } else if (event.key === 'Enter') {
      take();
      selectAllOf(event.target);
    } else if (event.key === 'Escape' && draft !== null) {
      // Only the typing is taken back: the focus stays where a person is.
      event.stopPropagation();
      setDraft(null);
    } else if (event.key === 'Escape' || event.ctrlKey || event.metaKey) passOn(event);
    else if (event.key === ' ') {
      // In a figure a space means nothing: there the space bar plays.
      take();
      passOn(event);
    }
  };

  const press = (event: PointerEvent) => {
    if (locked || input.current?.isFocused()) return;
    drag.current = { y: event.clientY, from: value, gesture: `${label} ${event.timeStamp}`, moved: false };
    event.currentTarget.setPointerCapture(event.pointerId);
    event.preventDefault();
  };

  const move = (event: PointerEvent) => {
    const now = drag.current;
    if (!now) return;
    const up = now.y - event.clientY;
    if (Math.abs(up) > DRAG_POINTS) now.moved = true;
    if (!now.moved) return;
    const wanted = now.from + Math.round(up / 8) * step;
    onChange(Math.min(most, Math.max(least, wanted)), now.gesture);
  };

  const release = () => {
    const now = drag.current;
    drag.current = null;
    if (now && !now.moved) {
      input.current!.focus();
      selectAllText(input.current);
    }
  };

  return (
    <View
      style={[styles.field, { width }]}
      {...({
        onKeyDownCapture: keys,
        onPointerDown: press,
        onPointerMove: move,
        onPointerUp: release,
        onPointerCancel: () => (drag.current = null),
      } as object)}
    >
      <Input
        {...rne}
        ref={((one: { input?: TextInput } | null) => (input.current = one?.input ?? null)) as never}
        value={draft ?? `${shown(value)}${unit}`}
        onChangeText={setDraft}
        onBlur={take}
        disabled={locked}
        renderErrorMessage={false}
        containerStyle={styles.container}
        inputContainerStyle={styles.input}
        inputStyle={styles.figure}
        {...({
          role: 'spinbutton',
          inputMode: 'decimal',
          autoComplete: 'off',
          'aria-label': label,
          ...(locked && { 'aria-disabled': true }),
          'aria-valuenow': value,
          'aria-valuemin': least,
          'aria-valuemax': most,
          'aria-valuetext': `${shown(value)}${unit || ` ${under}`}`,
        } as object)}
      />
      <Words small quiet unsaid style={styles.under}>
        {under}
      </Words>
    </View>
  );
};
