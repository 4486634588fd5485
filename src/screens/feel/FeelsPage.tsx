import { CheckBox } from '../../ui/CheckBox';
import { Group, Chips, Item, Items } from '../../ui/Layout';
import { Para, Words } from '../../ui/Words';
import { View } from 'react-native';
import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import type { Feel, NamedFeel } from '../../../core/document/feelSchema';
import type { Beat, Lane, Pattern } from '../../../core/document/schema';
import { plainOf } from '../../../core/edit/feels';
import { committedFeel } from '../../../core/play/commitFeel';
import { beatEdited } from '../../store/doc';
import { noticed } from '../../store/slices';
import { bChosen } from '../../store/comparing';
import { feelCopied } from '../../store/copied';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Range } from '../../ui/Range';
import { NameField } from '../../ui/NameField';
import { percent, PERCENT } from '../../ui/figures';
import { words } from '../../words/feel';
import { OwnFeel } from './OwnFeel';

interface FeelsPageProps {
  beat: Beat;
  pattern: Pattern;
  feel: Feel;
  lane: Lane | undefined;
}

/** Whether the pattern follows the beat's feel, or has its own. */
const Whose = ({ beat, pattern }: Pick<FeelsPageProps, 'beat' | 'pattern'>) => {
  const act = useDo();
  const own = pattern.feel !== undefined;
  const others = beat.patterns.filter(({ feel }) => !feel).length - (own ? 0 : 1);
  const set = (to: boolean) =>
    act(beatEdited({ edit: { edit: 'ownFeel', args: { patternId: pattern.id, own: to } } }));
  return (
    <Group title={words.whoseFeelThisIs}>
      <Chips>
        <Chip pressed={!own} onPress={() => set(false)}>
          {words.theBeats}
        </Chip>
        <Chip pressed={own} onPress={() => set(true)}>
          {words.onlyOfPattern(pattern.name)}
        </Chip>
      </Chips>
      <Para quiet>{own ? words.changesHereAreHeardIn : words.changesHereAreHeardInThis(others)}</Para>
    </Group>
  );
};

const Kept = ({ kept, patternId }: { kept: NamedFeel; patternId: string }) => {
  const act = useDo();
  const { id, name, feel } = kept;
  return (
    <Item ruled>
      <Words bold>{name}</Words>
      <Chips>
        <Chip
          label={words.useName(name)}
          onPress={() => act(beatEdited({ edit: { edit: 'useFeel', args: { patternId, feel } } }))}
        >
          {words.use}
        </Chip>
        <Chip label={words.nameAsB(name)} onPress={() => act(bChosen({ name, feel }))}>
          {words.asB}
        </Chip>
        <Chip
          label={words.dropName(name)}
          onPress={() => {
            act(beatEdited({ edit: { edit: 'dropFeel', args: { id } } }));
            act(noticed({ text: words.theFeelNameWasDropped(name), subject: 'feel' }));
          }}
        >
          {words.drop}
        </Chip>
      </Chips>
    </Item>
  );
};

const Keeping = ({ beat, pattern, feel }: Omit<FeelsPageProps, 'lane'>) => {
  const act = useDo();
  const clip = useApp((state) => state.copied.feelClip);
  const patternId = pattern.id;
  return (
    <Group title={words.feelsKeptWithThisBeat}>
      {beat.feels.length ? (
        <Items>
          {beat.feels.map((kept) => (
            <Kept key={kept.id} kept={kept} patternId={patternId} />
          ))}
        </Items>
      ) : (
        <Para quiet>{words.noneYetNameThisFeel}</Para>
      )}
      <NameField
        label={words.nameOfThisFeel}
        action={words.keepIt}
        onGive={(name) =>
          act(beatEdited({ edit: { edit: 'keepFeel', args: { id: nanoid(), name, patternId } } }))
        }
      />
      <Chips>
        <Chip
          onPress={() => {
            act(feelCopied(feel));
            act(
              noticed({
                text: words.theFeelWasCopiedOpen,
                subject: 'feel',
              }),
            );
          }}
        >
          {words.copyThisFeel}
        </Chip>
        <Chip
          disabled={!clip || clip === feel}
          onPress={() => act(beatEdited({ edit: { edit: 'useFeel', args: { patternId, feel: clip! } } }))}
        >
          {words.useTheCopiedFeel}
        </Chip>
      </Chips>
    </Group>
  );
};

/** A slider between two feels. */
const Blend = ({ pattern, feel }: Pick<FeelsPageProps, 'pattern' | 'feel'>) => {
  const act = useDo();
  const b = useApp((state) => state.comparing.b);
  const { blend } = feel;
  const set = (next: NonNullable<Feel['blend']> | null, gesture?: string) =>
    act(
      beatEdited({
        edit: { edit: 'setBlend', args: { patternId: pattern.id, blend: next } },
        ...(gesture && { gesture }),
      }),
    );
  const other = blend ? { name: blend.name, feel: blend.with } : b && { name: b.name, feel: plainOf(b.feel) };
  return (
    <Group title={words.blend}>
      {other ? (
        <>
          <Range
            label={words.blendFromThisFeelTo(other.name)}
            short={words.aToB}
            value={blend?.amount ?? 0}
            least={0}
            most={1}
            step={0.01}
            written={PERCENT}
            shown={percent(blend?.amount ?? 0)}
            onChange={(amount, gesture) => set({ with: other.feel, name: other.name, amount }, gesture)}
          />
          <Para quiet>{words.aIsTheFeelSet(other.name)}</Para>
          {blend ? <Chip onPress={() => set(null)}>{words.onlyA}</Chip> : null}
        </>
      ) : (
        <Para quiet>{words.chooseAsBOnA}</Para>
      )}
    </Group>
  );
};

/** Puts the feel into the hits; where something cannot sound as before, that is said first. */
const WriteIn = ({ beat, pattern, lane }: Pick<FeelsPageProps, 'beat' | 'pattern' | 'lane'>) => {
  const act = useDo();
  const [single, setSingle] = useState(false);
  const [asked, setAsked] = useState<{ laneId: string | null; what: string; told: string[] } | null>(null);
  const write = (laneId: string | null, what: string) => {
    setAsked(null);
    act(beatEdited({ edit: { edit: 'writeIn', args: { patternId: pattern.id, laneId, single } } }));
    act(
      noticed({
        text: words.theFeelWasWrittenInto(what),
        subject: 'feel',
      }),
    );
  };
  const ask = (laneId: string | null, what: string) => {
    const { told } = committedFeel(beat, pattern.id, laneId, single);
    if (told.length) setAsked({ laneId, what, told });
    else write(laneId, what);
  };
  return (
    <Group title={words.writeIn}>
      <Para quiet>{words.theFeelBecomesTheHits}</Para>
      <CheckBox
        checked={single}
        onChange={(checked) => {
          setSingle(checked);
          setAsked(null);
        }}
      >
        {words.rollsAndFlamsAsSingle}
      </CheckBox>
      <Chips>
        <Chip onPress={() => ask(null, words.allLanesOfPattern(pattern.name))}>{words.writeInAllLanes}</Chip>
        {lane ? <Chip onPress={() => ask(lane.id, lane.name)}>{words.writeInLane(lane.name)}</Chip> : null}
      </Chips>
      {asked ? (
        <View {...({ role: 'group', 'aria-label': words.beforeItIsWrittenIn } as object)}>
          {asked.told.map((text) => (
            <Para key={text} live>
              {text}
            </Para>
          ))}
          <Chips>
            <Chip onPress={() => write(asked.laneId, asked.what)}>{words.writeItInSo}</Chip>
            <Chip onPress={() => setAsked(null)}>{words.cancel}</Chip>
          </Chips>
        </View>
      ) : null}
    </Group>
  );
};

/** Feels as a whole: whose, kept, copied, blended, written in. */
export const FeelsPage = ({ beat, pattern, feel, lane }: FeelsPageProps) => (
  <>
    <Whose beat={beat} pattern={pattern} />
    <Keeping beat={beat} pattern={pattern} feel={feel} />
    <Blend pattern={pattern} feel={feel} />
    <OwnFeel />
    <WriteIn beat={beat} pattern={pattern} lane={lane} />
  </>
);
