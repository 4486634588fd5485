import { Page as Scrolled } from '../../ui/Page';
import { ScreenHead, Chips } from '../../ui/Layout';
import { Heading, Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useKept } from '../../ui/useKept';
import { SONG_PAGES } from '../pages';
import { use, useEffect, useMemo, useState } from 'react';
import { barTicks, beatTicks } from '../../../core/document/meter';
import type { Beat } from '../../../core/document/schema';
import { count } from '../../../core/document/text';
import { barAt, songTimeline, spanAt, type Timeline, type Span } from '../../../core/play/timeline';
import { secondsAt } from '../../../core/play/tempoMap';
import type { Ticks } from '../../../core/units';
import { redone, undone } from '../../store/doc';
import { songLooped, songPlaceSet, songShown } from '../../store/transport';
import { timeWords } from '../../../core/play/time';
import { giveSongClock } from '../../store/songClock';
import { selectBeat, useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { PlayContext } from '../../ui/playing';
import { Sheet } from '../../ui/Sheet';
import { Tabs, tabId } from '../../ui/Tabs';
import { useWide } from '../../ui/useWide';
import { editSong } from './edit';
import { FormsSheet } from './FormsSheet';
import { LivePage } from './LivePage';
import { SectionEditor } from './SectionEditor';
import { SectionList } from './SectionList';
import { placeWords, TimelineView } from '../../strings/TimelineView';
import { TrayPage } from './TrayPage';
import { words } from '../../words/song';

type Page = (typeof SONG_PAGES)[number];

const NAMES: Record<Page, string> = { sections: words.sections, tray: words.tray, live: words.playLive };
const PAGES = SONG_PAGES.map((id) => ({ id, name: NAMES[id] }));

const ZOOMS = [1, 2, 4, 8, 16, 32];

/** A place as it is counted. @example countedAt(layout, 4800) // "2.2.1" */
export const countedAt = (layout: Timeline, tick: Ticks): string => {
  const at = barAt(layout, tick);
  const bar = layout.bars[at];
  if (!bar) return '1.1.1';
  const inside = Math.min(barTicks(bar.meter) - 1, Math.max(0, tick - bar.from));
  const beat = beatTicks(bar.meter);
  return [at + 1, Math.floor(inside / beat) + 1, Math.floor((inside % beat) / 240) + 1].join('.');
};

/** The frame shows where the song is, and stops at its end. */
const useClock = (layout: Timeline) => {
  useEffect(() => {
    giveSongClock({
      length: layout.length,
      placeAt: (tick) => ({
        counted: countedAt(layout, tick),
        under: [spanAt(layout, tick)?.section?.name, timeWords(secondsAt(layout.tempos, tick))]
          .filter(Boolean)
          .join(' '),
      }),
    });
  }, [layout]);
};

/** Play means the song while this screen is open. */
const useShown = () => {
  const act = useDo();
  useEffect(() => {
    act(songShown(true));
    return () => {
      act(songShown(false));
    };
  }, [act]);
};

const Head = ({ beat, layout }: { beat: Beat; layout: Timeline }) => {
  const canUndo = useApp((state) => state.doc.past.length > 0);
  const canRedo = useApp((state) => state.doc.future.length > 0);
  const act = useDo();
  const length = layout.bars.length
    ? `${count(layout.bars.length, 'bar')}, ${timeWords(secondsAt(layout.tempos, layout.length))}`
    : words.noSectionYet;
  return (
    <ScreenHead
      title={words.song}
      style={styles.head}
      under={
        <Words small quiet lines={1}>
          {`${beat.name} · ${length}`}
        </Words>
      }
    >
      <IconButton label={words.undo} icon="undo" disabled={!canUndo} onPress={() => act(undone())} />
      <IconButton label={words.redo} icon="redo" disabled={!canRedo} onPress={() => act(redone())} />
    </ScreenHead>
  );
};

/** Where a span that was dragged comes to lie among the places. */
const placeIndexAt = (layout: Timeline, beat: Beat, moved: Span, tick: Ticks): number => {
  const others = beat.song.order.filter(({ id }) => id !== moved.place?.id);
  let at = 0;
  for (const place of others) {
    const spans = layout.spans.filter((span) => span.place?.id === place.id);
    const first = spans[0];
    if (!first) continue;
    if (first.from + (first.length * spans.length) / 2 < tick) at += 1;
  }
  return at;
};

/** What is repeated: a section, what was chosen along the bar numbers, or nothing. */
const LoopChips = ({ layout, at }: { layout: Timeline; at: Ticks }) => {
  const loop = useApp(({ transport }) => transport.song.loop);
  const act = useDo();
  const span = spanAt(layout, at);
  const section = span && { from: span.from, to: span.from + span.length };
  const looped = loop && section && loop.from === section.from && loop.to === section.to;
  return (
    <>
      <Chip
        label={
          loop && !looped
            ? words.repeatsBarsBarAtToBarAt2(barAt(layout, loop.from) + 1, barAt(layout, loop.to - 1) + 1)
            : words.repeatSectionSection(span?.section?.name ?? '')
        }
        pressed={Boolean(loop)}
        onPress={() => act(songLooped(loop ? null : section))}
      >
        {loop && !looped
          ? words.repeatsBarsBarAtToBarAt2(barAt(layout, loop.from) + 1, barAt(layout, loop.to - 1) + 1)
          : words.repeatSection}
      </Chip>
    </>
  );
};

const Empty = ({ onForms }: { onForms: () => void }) => (
  <View style={styles.songEmpty}>
    <Para>{words.aSongIsARow}</Para>
    <Chip onPress={onForms}>{words.beginWithAForm}</Chip>
  </View>
);

const useSeek = () => {
  const store = useAppStore();
  const toggle = use(PlayContext);
  const act = useDo();
  return (from: Ticks, play: boolean) => {
    const { playing, song } = store.getState().transport;
    const again = playing && (play || song.playing);
    if (again) toggle();
    act(songPlaceSet(from));
    if (play || again) toggle();
  };
};

const Whole = ({ beat }: { beat: Beat }) => {
  const layout = useMemo(() => songTimeline(beat), [beat]);
  const wide = useWide();
  const [page, setPage] = useKept<Page>('song page', 'sections');
  const [zoom, setZoom] = useState(0);
  const [chosen, setChosen] = useKept<string | null>('song section', null);
  const [forms, setForms] = useState(false);
  const playing = useApp(
    ({ transport }) => transport.playing && transport.song.playing && transport.song.tried === null,
  );
  const { from, loop } = useApp(({ transport }) => transport.song);
  const act = useDo();
  const seek = useSeek();
  useClock(layout);
  useShown();
  const at = Math.min(from, Math.max(0, layout.length - 1));
  // Where there is room, a section is always seen.
  const shown = chosen ?? (wide ? (beat.song.order[0]?.id ?? null) : null);
  const place = beat.song.order.find(({ id }) => id === shown);
  const section = beat.song.sections.find(({ id }) => id === place?.sectionId);
  const choose = (placeId: string) => setChosen(placeId || null);
  const showForms = () => setForms(true);
  const chooseSpan = (span: Span) => {
    setPage('sections');
    choose(span.place?.id ?? '');
  };
  const editor =
    place && section ? <SectionEditor beat={beat} section={section} place={place} onOther={choose} /> : null;
  const list = (
    <SectionList beat={beat} layout={layout} chosen={shown} onChoose={choose} onForms={showForms} />
  );
  const firstOf = (placeId: string) => layout.spans.find((span) => span.place?.id === placeId);
  return (
    <View style={styles.songScreen}>
      <Head beat={beat} layout={layout} />
      {layout.length > 0 ? (
        <>
          <TimelineView
            beat={beat}
            layout={layout}
            zoom={ZOOMS[zoom]!}
            at={at}
            loop={loop && loop.to <= layout.length ? loop : null}
            playing={playing}
            chosen={shown}
            onSeek={seek}
            onLoop={(range) => {
              act(songLooped(range));
              if (range) act(songPlaceSet(range.from));
            }}
            onChoose={chooseSpan}
            onMove={(span, to) =>
              editSong({
                edit: 'movePlace',
                args: { placeId: span.place!.id, to: placeIndexAt(layout, beat, span, to) },
              })
            }
          />
          <View style={styles.songTools}>
            <Words quiet lines={2} style={styles.songAt}>
              {words.fromPlace(placeWords(layout, at))}
            </Words>
            <LoopChips layout={layout} at={at} />
            <IconButton
              label={words.showMoreOfTheSong}
              icon="zoomOut"
              disabled={zoom === 0}
              onPress={() => setZoom(zoom - 1)}
            />
            <IconButton
              label={words.showLessOfTheSong}
              icon="zoomIn"
              disabled={zoom === ZOOMS.length - 1}
              onPress={() => setZoom(zoom + 1)}
            />
          </View>
        </>
      ) : (
        <Empty onForms={showForms} />
      )}
      <View style={styles.songBody}>
        <View style={styles.songPages}>
          <Tabs label={words.song} tabs={PAGES} value={page} onChange={setPage} panel="song-page" />
          <Scrolled key={page} id="song-page" role="tabpanel" labelledBy={tabId('song-page', page)}>
            {page === 'sections' ? list : null}
            {page === 'tray' ? <TrayPage beat={beat} wide={wide} /> : null}
            {page === 'live' ? <LivePage beat={beat} /> : null}
          </Scrolled>
        </View>
        {wide ? (
          <Scrolled role="complementary" style={styles.songPanel} label={words.section}>
            {editor && section ? (
              <>
                <View style={styles.panelHead}>
                  <Heading level={2}>{section.name}</Heading>
                  <Chip
                    label={words.playFromHereSection(section.name)}
                    onPress={() => seek(firstOf(place!.id)?.from ?? 0, true)}
                  >
                    {words.playFromHere}
                  </Chip>
                </View>
                {editor}
              </>
            ) : (
              <>
                <Para quiet>{words.beginWithAFormAnd}</Para>
                <Chip onPress={showForms}>{words.formsToBeginWith}</Chip>
              </>
            )}
          </Scrolled>
        ) : null}
      </View>
      {!wide && chosen && editor && section ? (
        <Sheet title={section.name} open onClose={() => setChosen(null)}>
          <Chips>
            <Chip
              label={words.playFromHereSection(section.name)}
              onPress={() => {
                setChosen(null);
                seek(firstOf(place!.id)?.from ?? 0, true);
              }}
            >
              {words.playFromHere}
            </Chip>
          </Chips>
          {editor}
        </Sheet>
      ) : null}
      {forms ? <FormsSheet beat={beat} onClose={() => setForms(false)} /> : null}
    </View>
  );
};

/** Loops become a track: sections in a row, seen from afar, heard from any place. */
export const SongScreen = () => {
  const beat = useApp(selectBeat);
  return beat ? <Whole beat={beat} /> : <Words style={styles.songEmpty}>{words.loadingTheBeat}</Words>;
};
