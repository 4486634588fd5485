import { Figure } from '../../../ui/Figure';
import { memo } from 'react';
import { CheckBox } from '../../../ui/CheckBox';
import { Chips, Group } from '../../../ui/Layout';
import { Words, Para } from '../../../ui/Words';
import { styles } from '../styles';
import type { Feel, LaneFeel } from '../../../../core/document/feelSchema';
import type { Lane } from '../../../../core/document/schema';
import type { HumanizeChange } from '../../../../core/edit/defined/feel';
import { bandFor, BAND_PRESETS } from '../../../../core/feel/bandPresets';
import { selectBeat, useApp } from '../../../store/store';
import { Chip } from '../../../ui/Chip';
import { Radios } from '../../../ui/Radios';
import { Range } from '../../../ui/Range';
import { editShownFeel } from '../edit';
import { figure } from '../../../ui/figures';
import { spreadText } from '../stageText';
import { words } from '../../../words/feel';
import { words as players } from '../../../words/players';
import { HandsPart } from './HandsPart';
import { PlayersPart } from './PlayersPart';

type Humanize = Feel['humanize'];

const set = (change: HumanizeChange, gesture?: string) =>
  editShownFeel({ edit: 'setHumanize', args: { change } }, gesture);

const take = (seed: number) => editShownFeel({ edit: 'setTake', args: { seed } });

/** Every take's seed is kept: one that was passed over can be had back. */
const Takes = memo(({ takes, seed }: Pick<Humanize, 'takes' | 'seed'>) => {
  const at = takes.indexOf(seed);
  return (
    <Chips>
      <Chip label={words.previousTake} disabled={at <= 0} onPress={() => take(takes[at - 1]!)}>
        ‹
      </Chip>
      <Words style={styles.of} live>
        {words.takeAtOfMany(at + 1, takes.length)}
      </Words>
      <Chip label={words.nextTake} disabled={at >= takes.length - 1} onPress={() => take(takes[at + 1]!)}>
        ›
      </Chip>
      <Chip onPress={() => take(crypto.getRandomValues(new Uint32Array(1))[0]!)}>{words.anotherTake}</Chip>
    </Chips>
  );
});
Takes.displayName = words.takes;

/** How much of the spreads the open lane has. */
const OwnSpread = ({ lane, own }: { lane: Lane; own: LaneFeel }) => {
  const change = (key: 'timing' | 'velocity') => (value: number, gesture: string) =>
    editShownFeel(
      { edit: 'setLanes', args: { laneIds: [lane.id], change: { [key]: value === 1 ? undefined : value } } },
      gesture,
    );
  return (
    <Group title={words.ofThatLaneHas(lane.name)}>
      <Figure
        of="scale"
        label={words.shareOfTheTimingSpread(lane.name)}
        short={words.timing}
        value={own.timing ?? 1}
        onChange={change('timing')}
      />
      <Figure
        of="scale"
        label={words.shareOfTheVelocitySpread(lane.name)}
        short={words.velocity}
        value={own.velocity ?? 1}
        onChange={change('velocity')}
      />
      <Figure
        of="share"
        label={players.shares(lane.name)}
        short={players.sharesShort}
        value={own.shares ?? (own.apart ? 0 : 1)}
        step={0.05}
        onChange={(shares, gesture) =>
          editShownFeel(
            {
              edit: 'setLanes',
              args: {
                laneIds: [lane.id],
                change: { shares: shares === 1 ? undefined : shares, apart: undefined },
              },
            },
            gesture,
          )
        }
      />
    </Group>
  );
};

const SOURCES = [
  { value: 'spread', name: players.spread },
  { value: 'players', name: players.players },
] as const;

/** The timing of each drum by itself. */
const Spread = ({ humanize }: { humanize: Humanize }) => (
  <>
    <Range
      label={words.timingSpread}
      short={words.timing}
      value={humanize.timing}
      least={0}
      most={30}
      step={0.5}
      shown={words.timingMs(figure(humanize.timing))}
      onChange={(timing, gesture) => set({ timing }, gesture)}
    />
    <Para quiet live>
      {spreadText(humanize.timing)}
    </Para>
    <Figure
      of="share"
      label={words.driftShare}
      short={words.drift}
      value={humanize.drift}
      onChange={(drift, gesture) => set({ drift }, gesture)}
    />
    <Para quiet>{words.howMuchOfItDrifts}</Para>
    <Figure
      of="share"
      label={players.softer}
      short={players.softerShort}
      value={humanize.soft ?? 0}
      step={0.05}
      onChange={(soft, gesture) => set({ soft }, gesture)}
    />
    <Para quiet>{players.softerAbout}</Para>
  </>
);

/** Small errors, as a player makes them. */
export const HumanizeStage = ({ feel, lane }: { feel: Feel; lane: Lane | undefined }) => {
  const { humanize } = feel;
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const { band } = humanize;
  const come = (from: (typeof SOURCES)[number]['value']) => {
    const on = from === 'players';
    const next = band ?? (on ? bandFor(lanes, BAND_PRESETS[3]!) : null);
    if (!next || (band?.on ?? false) === on) return;
    const gesture = `timing from ${performance.now()}`;
    editShownFeel({ edit: 'setBand', args: { band: { ...next, on, otherAnew: humanize.anew } } }, gesture);
    // Each of the two has its own. A band that began anew with each pass would never get far: at first it runs on.
    set({ anew: band ? (band.otherAnew ?? humanize.anew) : true }, gesture);
  };
  return (
    <>
      <Radios
        label={players.timingFrom}
        value={band?.on ? 'players' : 'spread'}
        options={SOURCES}
        onChange={come}
      />
      {band?.on ? (
        <>
          <Para quiet>{players.aboutPlayers}</Para>
          <PlayersPart feel={feel} band={band} lane={lane} />
        </>
      ) : (
        <Spread humanize={humanize} />
      )}
      <Range
        label={words.velocitySpread}
        short={words.velocity}
        value={humanize.velocity}
        least={0}
        most={30}
        step={0.5}
        shown={`± ${figure(humanize.velocity)}`}
        onChange={(velocity, gesture) => set({ velocity }, gesture)}
      />
      <Takes takes={humanize.takes} seed={humanize.seed} />
      <CheckBox checked={humanize.anew} onChange={(anew) => set({ anew })}>
        {band?.on ? players.runsOn : words.newOnEachPass2}
      </CheckBox>
      <HandsPart feel={feel} />
      {lane ? (
        <OwnSpread key={lane.id} lane={lane} own={feel.lanes[lane.id] ?? {}} />
      ) : (
        <Para quiet>{words.pressALanesNameAboveTo}</Para>
      )}
    </>
  );
};
