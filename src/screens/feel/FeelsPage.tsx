import { CheckBox } from '../../ui/CheckBox';
import { Group, Chips, Item, Items } from '../../ui/Layout';
import { Para, Words } from '../../ui/Words';
import { View } from 'react-native';
import { nanoid } from '@reduxjs/toolkit';
import { useState } from 'react';
import type { Feel, NamedFeel } from '../../../core/beat/feelSchema';
import type { Beat, Lane, Pattern } from '../../../core/beat/schema';
import { plainOf } from '../../../core/feel/edits';
import { writtenIn } from '../../../core/pattern/writeIn';
import { beatEdited } from '../../state/doc';
import { noticed, viewChanged } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Range } from '../../ui/Range';
import { NameField } from '../../ui/NameField';
import { percent } from '../../ui/figures';

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
    <Group title="Whose feel this is">
      <Chips>
        <Chip pressed={!own} onPress={() => set(false)}>
          The beat’s
        </Chip>
        <Chip pressed={own} onPress={() => set(true)}>
          {`Only of ${pattern.name}`}
        </Chip>
      </Chips>
      <Para quiet>
        {own
          ? 'Changes here are heard in this pattern alone. Going back to the beat’s can be undone.'
          : `Changes here are heard in this pattern and in ${others} other${others === 1 ? '' : 's'}.`}
      </Para>
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
          label={`Use ${name}`}
          onPress={() => act(beatEdited({ edit: { edit: 'useFeel', args: { patternId, feel } } }))}
        >
          Use
        </Chip>
        <Chip label={`${name} as B`} onPress={() => act(viewChanged({ b: { name, feel } }))}>
          As B
        </Chip>
        <Chip
          label={`Drop ${name}`}
          onPress={() => {
            act(beatEdited({ edit: { edit: 'dropFeel', args: { id } } }));
            act(noticed({ text: `The feel “${name}” was dropped. Undo brings it back.`, subject: 'feel' }));
          }}
        >
          Drop
        </Chip>
      </Chips>
    </Item>
  );
};

const Keeping = ({ beat, pattern, feel }: Omit<FeelsPageProps, 'lane'>) => {
  const act = useDo();
  const clip = useApp((state) => state.view.feelClip);
  const patternId = pattern.id;
  return (
    <Group title="Feels kept with this beat">
      {beat.feels.length ? (
        <Items>
          {beat.feels.map((kept) => (
            <Kept key={kept.id} kept={kept} patternId={patternId} />
          ))}
        </Items>
      ) : (
        <Para quiet>None yet. Name this feel to keep it, and use it again on any pattern.</Para>
      )}
      <NameField
        label="Name of this feel"
        action="Keep it"
        onGive={(name) =>
          act(beatEdited({ edit: { edit: 'keepFeel', args: { id: nanoid(), name, patternId } } }))
        }
      />
      <Chips>
        <Chip
          onPress={() => {
            act(viewChanged({ feelClip: feel }));
            act(
              noticed({
                text: 'The feel was copied. Open another pattern or beat to use it there.',
                subject: 'feel',
              }),
            );
          }}
        >
          Copy this feel
        </Chip>
        <Chip
          disabled={!clip || clip === feel}
          onPress={() => act(beatEdited({ edit: { edit: 'useFeel', args: { patternId, feel: clip! } } }))}
        >
          Use the copied feel
        </Chip>
      </Chips>
    </Group>
  );
};

/** A slider between two feels. */
const Blend = ({ pattern, feel }: Pick<FeelsPageProps, 'pattern' | 'feel'>) => {
  const act = useDo();
  const b = useApp((state) => state.view.b);
  const { blend } = feel;
  const set = (next: Feel['blend'] | null, gesture?: string) =>
    act(
      beatEdited({
        edit: { edit: 'setBlend', args: { patternId: pattern.id, blend: next } },
        ...(gesture && { gesture }),
      }),
    );
  const other = blend ? { name: blend.name, feel: blend.with } : b && { name: b.name, feel: plainOf(b.feel) };
  return (
    <Group title="Blend">
      {other ? (
        <>
          <Range
            label={`Blend from this feel to ${other.name}`}
            short="A to B"
            value={blend?.amount ?? 0}
            least={0}
            most={1}
            step={0.01}
            shown={percent(blend?.amount ?? 0)}
            onChange={(amount, gesture) => set({ with: other.feel, name: other.name, amount }, gesture)}
          />
          <Para quiet>{`A is the feel set on the stages, B is “${other.name}”.`}</Para>
          {blend ? <Chip onPress={() => set(null)}>Only A</Chip> : null}
        </>
      ) : (
        <Para quiet>Choose “As B” on a kept feel; then a slider blends the two.</Para>
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
        text: `The feel was written into ${what}; it is straight there now. Undo takes it out again.`,
        subject: 'feel',
      }),
    );
  };
  const ask = (laneId: string | null, what: string) => {
    const { told } = writtenIn(beat, pattern.id, laneId, single);
    if (told.length) setAsked({ laneId, what, told });
    else write(laneId, what);
  };
  return (
    <Group title="Write in">
      <Para quiet>
        The feel becomes nudge and velocity of the hits, as they sound in the first pass, and is then
        straight.
      </Para>
      <CheckBox
        checked={single}
        onChange={(checked) => {
          setSingle(checked);
          setAsked(null);
        }}
      >
        Rolls and flams as single hits
      </CheckBox>
      <Chips>
        <Chip onPress={() => ask(null, `all lanes of ${pattern.name}`)}>Write in all lanes</Chip>
        {lane ? <Chip onPress={() => ask(lane.id, lane.name)}>{`Write in ${lane.name}`}</Chip> : null}
      </Chips>
      {asked ? (
        <View {...({ role: 'group', 'aria-label': 'Before it is written in' } as object)}>
          {asked.told.map((text) => (
            <Para key={text} live>
              {text}
            </Para>
          ))}
          <Chips>
            <Chip onPress={() => write(asked.laneId, asked.what)}>Write it in so</Chip>
            <Chip onPress={() => setAsked(null)}>Leave it</Chip>
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
    <WriteIn beat={beat} pattern={pattern} lane={lane} />
  </>
);
