import { useNarrow, useWide } from '../../ui/useWide';
import { Words } from '../../ui/Words';
import { Press } from '../../ui/Press';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useRef } from 'react';
import { playedSongTick, playedTick } from '../../audio/player';
import { barTicks, beatTicks } from '../../../core/document/meter';
import type { Pattern } from '../../../core/document/schema';
import { heldSwing, heldTempo, SWING } from '../../../core/edit/beatEdits';
import { TEMPO, ticksPerMs } from '../../../core/units';
import { swingPercentAt } from '../../../core/feel/swing';
import { beatEdited, swingSet, tempoSet } from '../../store/doc';
import { metronomeSet, practiceSet } from '../../store/transport';
import { songClock } from '../../store/songClock';
import { selectBeat, selectFeel, selectPattern, useApp, useDo } from '../../store/store';
import { Icon } from '../../ui/Icon';
import { IconButton } from '../../ui/IconButton';
import { NumberField } from '../../ui/NumberField';
import { togglePlay } from './sound';
import { words } from '../../words/frame';

/** A place in the pattern as it is counted: bar, beat, sixteenth. @example place(pattern, 1200) // "1.2.2" */
export const placeText = (pattern: Pattern, tick: number): string => {
  const bar = barTicks(pattern.meter);
  const inside = ((tick % (bar * pattern.bars)) + bar * pattern.bars) % (bar * pattern.bars);
  const inBar = inside % bar;
  const beat = beatTicks(pattern.meter);
  return [inside / bar, inBar / beat, (inBar % beat) / 240].map((part) => Math.floor(part) + 1).join('.');
};

/** Without React, many times a second; the same text once more would have the page laid out anew. */
const write = (where: HTMLElement | null, text: string): void => {
  if (where && where.textContent !== text) where.textContent = text;
};

const Place = () => {
  const pattern = useApp(selectPattern);
  const playing = useApp((state) => state.transport.playing);
  const tempo = useApp((state) => state.doc.beat?.tempo ?? 100);
  const figure = useRef<HTMLElement>(null);
  const under = useRef<HTMLElement>(null);
  useEffect(() => {
    if (!pattern) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const show = () => {
      const played = playing ? playedTick() : 0;
      const text = placeText(pattern, played ?? 0);
      write(figure.current, text);
      write(under.current, words.barSplitOfBars(text.split('.')[0], pattern.bars));
      // The figure changes once a sixteenth: there is nothing to do in between.
      const toNext = played === null ? 16 : (240 - (played % 240)) / ticksPerMs(tempo);
      if (playing) timer = setTimeout(show, toNext + 1);
    };
    show();
    return () => clearTimeout(timer);
  }, [pattern, playing, tempo]);
  return (
    <View style={styles.place} aria-hidden>
      <Words figure ref={figure} style={styles.placeFigure}>
        1.1.1
      </Words>
      <Words style={styles.placeUnder} ref={under}>
        {words.bar1}
      </Words>
    </View>
  );
};

const TempoField = () => {
  const tempo = useApp((state) => state.doc.beat?.tempo ?? 100);
  const practice = useApp(({ transport }) => transport.practice);
  const leader = useApp(({ transport }) => transport.leader);
  const act = useDo();
  const change = (asked: number, gesture?: string) => {
    // Whoever sets the tempo is done with practising.
    if (practice !== null) act(practiceSet(null));
    act(tempoSet({ tempo: heldTempo(asked).value, ...(gesture && { gesture }) }));
  };
  return (
    <NumberField
      label={words.tempo}
      value={leader?.bpm ?? practice ?? tempo}
      {...TEMPO}
      under={leader ? words.led(leader.name) : practice === null ? words.bpm : words.practice}
      width={72}
      onChange={change}
    />
  );
};

const SwingField = () => {
  const feel = useApp(selectFeel);
  const patternId = useApp((state) => state.focus.patternId);
  const tempo = useApp((state) => state.doc.beat?.tempo ?? 100);
  const swing = feel?.base === 'swing' && !feel.off.includes('base') ? feel.swing : null;
  // It would give away which of the two has the feel.
  const locked = useApp((state) => state.comparing.blind);
  const act = useDo();
  const change = (asked: number, gesture?: string) => {
    act(swingSet({ patternId, change: { percent: heldSwing(asked).value }, ...(gesture && { gesture }) }));
  };
  const sixteenths = (feel?.swing.grid ?? '1/16') === '1/16';
  return (
    <>
      <NumberField
        label={words.swing}
        value={swing ? Math.round(100 * swingPercentAt(swing, tempo)) / 100 : 50}
        {...SWING}
        under={words.swing2}
        unit=" %"
        width={80}
        locked={locked}
        onChange={change}
      />
      <Press
        style={styles.swingGrid}
        disabled={locked}
        label={sixteenths ? words.n16thsAreTheSwungNotes : words.n8thsAreTheSwungNotes}
        onPress={() => act(swingSet({ patternId, change: { grid: sixteenths ? '1/8' : '1/16' } }))}
      >
        <Words style={styles.link}>{sixteenths ? words.n16ths : words.n8ths}</Words>
      </Press>
    </>
  );
};

/** Mute and solo are never forgotten: they are said here, and one tap clears them. */
const Silenced = () => {
  const wide = useWide();
  const lanes = useApp((state) => state.doc.beat?.lanes);
  const act = useDo();
  const muted = lanes?.filter((lane) => lane.mute).length ?? 0;
  const soloed = lanes?.filter((lane) => lane.solo).length ?? 0;
  if (!muted && !soloed) return null;
  const parts = [muted && words.mutedMuted(muted), soloed && words.soloedSoloed(soloed)].filter(Boolean);
  return (
    <Press
      style={[styles.silenced, !wide && styles.silencedAbove]}
      label={words.partsClear(parts.join(', '))}
      onPress={() => act(beatEdited({ edit: { edit: 'clearSilenced', args: {} } }))}
    >
      <Words style={styles.silencedWords}>{parts.join(', ')}</Words>
    </Press>
  );
};

const Click = () => {
  const metronome = useApp((state) => state.transport.metronome);
  const act = useDo();
  return (
    <IconButton
      label={words.metronome}
      icon="metronome"
      pressed={metronome.on}
      onPress={() => act(metronomeSet({ on: !metronome.on }))}
    />
  );
};

const SONG_MS = 60;

/** Where the song stands. */
const SongPlaceFigure = () => {
  const figure = useRef<HTMLElement>(null);
  const under = useRef<HTMLElement>(null);
  const from = useApp(({ transport }) => transport.song.from);
  const playing = useApp(({ transport }) => transport.playing && transport.song.playing);
  useEffect(() => {
    const show = () => {
      const place = songClock()?.placeAt((playing ? playedSongTick() : null) ?? from);
      if (!place) return;
      write(figure.current, place.counted);
      write(under.current, place.under);
    };
    show();
    const timer = setInterval(show, playing ? SONG_MS : SONG_MS * 4);
    return () => clearInterval(timer);
  }, [from, playing]);
  return (
    <View style={styles.place} aria-hidden>
      <Words figure ref={figure} style={styles.placeFigure}>
        {' '}
      </Words>
      <Words ref={under} style={styles.placeUnder}>
        {' '}
      </Words>
    </View>
  );
};

/** Of the song where it plays or its screen is open, else of the pattern. */
const Where = () => {
  const song = useApp(({ transport, doc }) =>
    transport.playing
      ? transport.song.playing
      : transport.song.shown && (doc.beat?.song.order.length ?? 0) > 0,
  );
  return song ? <SongPlaceFigure /> : <Place />;
};

export const Transport = () => {
  const wide = useWide();
  const narrow = useNarrow();
  const playing = useApp((state) => state.transport.playing);
  const ready = useApp((state) => selectBeat(state) !== null);
  return (
    <View
      role="region"
      style={[styles.transport, narrow && styles.transportNarrow, wide && styles.transportWide]}
      aria-label={words.transport}
    >
      <Press
        style={styles.play}
        label={playing ? words.stop : words.play}
        disabled={!ready}
        onPress={togglePlay}
      >
        <Icon name={playing ? 'stop' : 'play'} filled />
      </Press>
      <TempoField />
      <SwingField />
      <Click />
      <Silenced />
      <Where />
    </View>
  );
};
