import { focusSlider, isOnSlider } from './field';
import { Slider as RneSlider } from '@rneui/base/dist/Slider';
import { use, useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { StyleSheet, View } from 'react-native';
import { SayContext } from './say';
import { TextField } from './TextField';
import { useRne } from './Themed';
import { colour, TARGET } from './tokens';
import { listen } from '../web/listen';
import { words } from '../words/ui';
import { figure, typedFigure, type FigureWritten } from './figures';

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
  /** How the value is told and typed; as it is where this is not given. */
  written?: FigureWritten;
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

/** A second tap within this time, in ms, and this near, in points, is a double tap; a system may take a slower one for it. */
const DOUBLE = { ms: 300, slow: 700, near: 24 };
/** A finger that has gone so far, in points, drags. */
const DRAGS = 3;

/** A press of a finger. */
interface Pressed {
  at: number;
  x: number;
  /** The second of two taps; nothing, once the page scrolls under it. */
  as: 'tap' | 'second' | 'drag' | 'nothing';
  /** The value when the first tap came. */
  before: number;
}

/**
 * What a tap on the track does waits until it cannot be the first of two any more: a double tap changes nothing.
 * A drag, a key, or a press elsewhere ends the waiting at once.
 */
const useTaps = (value: number, change: (to: number) => void, onDouble: (before: number) => void) => {
  const pressed = useRef<Pressed | null>(null);
  const waiting = useRef<{ to: number; timer: ReturnType<typeof setTimeout> } | null>(null);
  const latest = useRef(change);
  useEffect(() => {
    latest.current = change;
  });
  const drop = () => {
    const was = waiting.current;
    waiting.current = null;
    if (was) clearTimeout(was.timer);
    return was;
  };
  const flush = () => {
    const was = drop();
    if (was) latest.current(was.to);
  };
  const lately = useRef(flush);
  useEffect(() => {
    lately.current = flush;
  });
  useEffect(() => {
    const elsewhere = ({ target }: Event) => {
      if (!isOnSlider(target)) lately.current();
    };
    const deaf = listen('pointerdown', elsewhere, { capture: true });
    return () => {
      deaf();
      lately.current();
    };
  }, []);
  /** The tap before this one, at its place. */
  const first = ({ clientX, timeStamp }: PointerEvent) => {
    const was = pressed.current;
    const near = was?.as === 'tap' && Math.abs(clientX - was.x) < DOUBLE.near;
    return near && timeStamp - was.at < DOUBLE.slow ? was : null;
  };
  return {
    flush,
    /** Is it a new gesture? */
    down: (event: PointerEvent): boolean => {
      const { timeStamp: at, clientX: x } = event;
      const was = first(event);
      const second = was !== null && at - was.at < DOUBLE.ms;
      if (second) drop();
      else flush();
      pressed.current = { at, x, as: second ? 'second' : 'tap', before: was?.before ?? value };
      return !was;
    },
    move: ({ clientX }: PointerEvent) => {
      const now = pressed.current;
      if (!now || now.as === 'nothing' || now.as === 'drag' || Math.abs(clientX - now.x) <= DRAGS) return;
      now.as = 'drag';
      flush();
    },
    click: ({ detail }: MouseEvent) => {
      const as = pressed.current?.as;
      // Two slow taps, of which the first has been heeded, are told as a double click too.
      if (as !== 'second' && (detail !== 2 || as === 'drag' || as === 'nothing')) return;
      const before = pressed.current?.before ?? value;
      pressed.current = null;
      drop();
      onDouble(before);
    },
    /** The page scrolls, and the finger that touched the track meant that. */
    cancel: () => {
      drop();
      const now = pressed.current;
      if (now && now.as !== 'drag') now.as = 'nothing';
    },
    /** The track asks for a value. */
    ask: (to: number) => {
      const now = pressed.current;
      if (!now || now.as === 'drag') latest.current(to);
      else if (now.as === 'tap') {
        drop();
        waiting.current = { to, timer: setTimeout(() => lately.current(), DOUBLE.ms) };
      }
    },
  };
};

/**
 * A bare slider, for a row that shows its name and figure itself. Arrows move it by a step, Page keys by ten, Home and End to
 * its ends; a double tap lets the value be typed as it is shown, Delete sets it back.
 */
export const Slider = (props: SliderProps) => {
  const { label, value, least, most, step, shown, onChange, rest, typed = [least, most], written } = props;
  const gesture = useRef('');
  const [typing, setTyping] = useState(false);
  // The thumb goes back to the value that there is.
  const [anew, setAnew] = useState(0);
  const rne = useRne();
  const say = use(SayContext);
  // After the typing the focus is where it was before.
  const slider = useRef<View>(null);
  const back = useRef(false);
  useEffect(() => {
    if (typing || !back.current) return;
    back.current = false;
    focusSlider(slider.current);
  }, [typing]);
  const begin = (at: number) => (gesture.current = `${label} ${at}`);
  const give = (to: number) => {
    const next = stepped(to, props);
    if (next !== value) onChange(next, gesture.current);
  };
  const taps = useTaps(value, give, (before) => {
    if (before !== value) onChange(before, gesture.current);
    setTyping(true);
  });
  const keys = (event: KeyboardEvent) => {
    taps.flush();
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
  const told = (one: number) => Number(figure(written ? written.figure(one) : one));
  const text = (shownAs: number) => written?.text?.(shownAs) ?? String(shownAs);
  const take = (asText: string) => {
    setTyping(false);
    back.current = true;
    // What was only looked at stays as it is, to its last place.
    if (asText === text(told(value))) return;
    const asked = (written?.read ?? typedFigure)(asText);
    if (!Number.isFinite(asked)) return;
    begin(performance.now());
    const [low, high] = typed.map(told) as [number, number];
    const grain = written?.grain ?? Math.min(1, step);
    const kept = stepped(asked, { least: low, most: high, step: grain });
    if (asked < low || asked > high)
      say(words.labelGoesFromLeastTo(label, text(low), text(high), text(asked), text(kept)), label);
    const next = Math.min(typed[1], Math.max(typed[0], written ? written.value(kept) : kept));
    if (next !== value) onChange(Number(next.toFixed(6)), gesture.current);
  };
  if (typing) return <TextField label={label} value={text(told(value))} numeric focused onDone={take} />;
  return (
    <View
      ref={slider}
      style={styles.slider}
      {...({
        onPointerDown: (event: PointerEvent) => taps.down(event) && begin(event.timeStamp),
        onPointerMove: taps.move,
        onPointerCancel: () => {
          taps.cancel();
          setAnew((times) => times + 1);
        },
        onClick: taps.click,
      } as object)}
    >
      <RneSlider
        {...rne}
        key={anew}
        value={value}
        minimumValue={least}
        maximumValue={most}
        step={step}
        allowTouchTrack
        onValueChange={taps.ask}
        onSlidingComplete={(to) => to !== value && taps.ask(to)}
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
