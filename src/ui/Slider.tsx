import { Slider as RneSlider } from '@rneui/base/dist/Slider';
import { use, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { StyleSheet, View } from 'react-native';
import { SayContext } from './say';
import { TextField } from './TextField';
import { useRne } from './Themed';
import { colour, TARGET } from './tokens';
import { words } from '../words/ui';

export interface SliderProps {
  /** The whole name, such as "Level of Kick". */
  label: string;
  value: number;
  least: number;
  most: number;
  step: number;
  /** The value with its unit: said, and shown beside it. */
  shown: string;
  /** `gesture` is the same all through one drag. */
  onChange: (value: number, gesture: string) => void;
  /** What Delete sets it back to. */
  rest?: number;
  /** What may be typed, from and to, where that is more than the track shows. */
  typed?: [number, number];
}

const TRACK = 4;
const THUMB = 22;

const styles = StyleSheet.create({
  // It is moved sideways by a finger; up and down the page goes on scrolling.
  slider: {
    height: TARGET,
    justifyContent: 'center',
    touchAction: 'pan-y',
    // Dragging it chooses no text, and its track is laid out by itself.
    userSelect: 'none',
    contain: 'layout size style',
    cursor: 'pointer',
    flexGrow: 1,
    minWidth: 96,
  } as object,
  track: { height: TRACK },
  thumb: { width: THUMB, height: THUMB, borderRadius: THUMB / 2, borderWidth: 2, borderColor: colour.ground },
});

const PAGE = 10;

/** The nearest step to a value, without the rests that parts of ten leave. */
const stepped = (
  value: number,
  { least, most, step }: Pick<SliderProps, 'least' | 'most' | 'step'>,
): number => {
  const near = least + Math.round((value - least) / step) * step;
  return Math.min(most, Math.max(least, Number(near.toFixed(6))));
};

/**
 * A bare slider, for a row that shows its name and figure itself. Arrows move it by a step, Page keys by ten, Home and End to
 * its ends; a double tap lets the value be typed, Delete sets it back.
 */
export const Slider = (props: SliderProps) => {
  const { label, value, least, most, step, shown, onChange, rest, typed = [least, most] } = props;
  const gesture = useRef('');
  const [typing, setTyping] = useState(false);
  const rne = useRne();
  const say = use(SayContext);
  // After the typing the focus is where it was before.
  const slider = useRef<View>(null);
  const back = useRef(false);
  useEffect(() => {
    if (typing || !back.current) return;
    back.current = false;
    (slider.current as unknown as HTMLElement | null)?.querySelector<HTMLElement>('[role=slider]')?.focus();
  }, [typing]);
  const begin = (at: number) => (gesture.current = `${label} ${at}`);
  const give = (to: number) => {
    const next = stepped(to, props);
    if (next !== value) onChange(next, gesture.current);
  };
  const keys = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || typing) return;
    const to = {
      ArrowRight: value + step,
      ArrowUp: value + step,
      ArrowLeft: value - step,
      ArrowDown: value - step,
      PageUp: value + PAGE * step,
      PageDown: value - PAGE * step,
      Home: least,
      End: most,
      Delete: rest,
      Backspace: rest,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    // A key that is held is one gesture, as a drag is.
    if (!event.repeat) begin(event.timeStamp);
    give(to);
  };
  if (typing)
    return (
      <TextField
        label={label}
        value={String(value)}
        numeric
        focused
        onDone={(text) => {
          setTyping(false);
          back.current = true;
          const to = Number.parseFloat(text.replace(',', '.'));
          begin(performance.now());
          if (!Number.isFinite(to)) return;
          const [low, high] = typed;
          const kept = stepped(to, { least: low, most: high, step });
          if (to < low || to > high)
            say(words.labelGoesFromLeastTo(label, low, high, String(to), kept), label);
          if (kept !== value) onChange(kept, gesture.current);
        }}
      />
    );
  return (
    <View
      ref={slider}
      style={styles.slider}
      {...({
        onPointerDown: (event: PointerEvent) => begin(event.timeStamp),
        onClick: ({ detail }: MouseEvent) => detail === 2 && setTyping(true),
      } as object)}
    >
      <RneSlider
        {...rne}
        value={value}
        minimumValue={least}
        maximumValue={most}
        step={step}
        allowTouchTrack
        onValueChange={give}
        onSlidingComplete={(to) => to !== value && give(to)}
        minimumTrackTintColor={colour.woad}
        maximumTrackTintColor={colour.line}
        thumbTintColor={colour.text}
        thumbTouchSize={{ width: TARGET, height: TARGET }}
        trackStyle={styles.track}
        thumbStyle={styles.thumb}
        {...({
          tabIndex: 0,
          'aria-label': label,
          'aria-valuenow': value,
          'aria-valuemin': least,
          'aria-valuemax': most,
          'aria-valuetext': shown,
          'aria-orientation': 'horizontal',
          onKeyDown: keys,
        } as object)}
      />
    </View>
  );
};
