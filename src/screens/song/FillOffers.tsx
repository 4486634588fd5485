import { Chips, Items, Item } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { nanoid } from '@reduxjs/toolkit';
import { use, useEffect, useRef, useState } from 'react';
import type { Beat, Section } from '../../../core/document/schema';
import { barTicks } from '../../../core/document/meter';
import { fillsFor, type FillOffer } from '../../../core/edit/fills';
import { takeFill } from '../../../core/edit/takeFill';
import { songTimeline } from '../../../core/play/timeline';
import { builtIn } from '../../grooves/builtIn';
import { songTried } from '../../store/transport';
import { useApp, useDo, useAppStore } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { PlayContext } from '../../ui/playing';
import { editSong } from './edit';
import { words } from '../../words/song';

/** The last two bars of a section's first time, to hear a fill in its place. */
const placeToHear = (beat: Beat, sectionId: string) => {
  const layout = songTimeline(beat);
  const span = layout.spans.find(({ section }) => section?.id === sectionId);
  const bars = layout.bars.filter(({ from }) => span && from >= span.from && from < span.from + span.length);
  const next = layout.bars.find(({ from }) => span && from === span.from + span.length);
  const first = bars[Math.max(0, bars.length - 2)];
  if (!span || !first) return null;
  const to = span.from + span.length + (next ? barTicks(next.meter) : 0);
  return { from: first.from, to };
};

/** Fills made of the section's own pattern and from the library, heard in place before one is taken. */
export const FillOffers = ({ beat, section }: { beat: Beat; section: Section }) => {
  const store = useAppStore();
  const [offers, setOffers] = useState<FillOffer[] | null>(null);
  const [heard, setHeard] = useState<string | null>(null);
  const before = useRef<{ from: number; loop: { from: number; to: number } | null } | null>(null);
  const [over, setOver] = useState<'bar' | 'beat'>('bar');
  const playing = useApp(({ transport }) => transport.playing && transport.song.tried !== null);
  const toggle = use(PlayContext);
  const act = useDo();
  const stop = () => {
    if (store.getState().transport.playing) toggle();
  };
  /** The song plays from where it did, and repeats what it did, before a fill was heard in place. */
  const end = () => {
    stop();
    if (before.current) act(songTried({ tried: null, ...before.current }));
    before.current = null;
  };
  const latest = useRef(end);
  useEffect(() => {
    latest.current = end;
  });
  useEffect(
    () => () => {
      if (before.current) latest.current();
    },
    [],
  );
  const hear = (offer: FillOffer) => {
    const tried = takeFill(beat, section.id, offer, 'tried fill', over);
    const range = placeToHear(tried, section.id);
    if (!range) return;
    stop();
    setHeard(offer.id);
    const { from, loop } = store.getState().transport.song;
    before.current ??= { from, loop };
    act(songTried({ tried, from: range.from, loop: range }));
    toggle();
  };
  const take = (offer: FillOffer) => {
    end();
    editSong({ edit: 'takeFill', args: { sectionId: section.id, offer, patternId: nanoid(), over } });
    setOffers(null);
  };
  if (!offers)
    return (
      <Chips>
        <Chip
          disabled={!section.entries.length}
          onPress={() => void builtIn().then((library) => setOffers(fillsFor(beat, section, library)))}
        >
          {words.offerFills}
        </Chip>
      </Chips>
    );
  return (
    <>
      <Choice
        label={words.theOfferedFillTakesThe}
        short={words.offeredFor}
        value={over}
        options={[
          { value: 'bar', name: words.theLastBar },
          { value: 'beat', name: words.theLastBeat },
        ]}
        onChange={setOver}
      />
      <Items label={words.fillsThatAreOffered}>
        {offers.map((offer) => (
          <Item key={offer.id} style={styles.line}>
            <View style={styles.words}>
              <Words bold>{offer.name}</Words>
              <Words small quiet>
                {offer.about}
              </Words>
            </View>
            <Chip
              label={
                playing && heard === offer.id
                  ? words.stopOffer(offer.name)
                  : words.hearOfferInPlace(offer.name)
              }
              pressed={playing && heard === offer.id}
              onPress={() => (playing && heard === offer.id ? end() : hear(offer))}
            >
              {playing && heard === offer.id ? words.stop : words.hear}
            </Chip>
            <Chip label={words.takeOffer(offer.name)} onPress={() => take(offer)}>
              {words.take}
            </Chip>
          </Item>
        ))}
      </Items>
      {offers.length ? null : <Para quiet>{words.theSectionHasNoPattern}</Para>}
      <Chips>
        <Chip
          onPress={() => {
            end();
            setOffers(null);
          }}
        >
          {words.noneOfThese}
        </Chip>
      </Chips>
    </>
  );
};
