import { Figure } from '../../../ui/Figure';
import { useDeferredValue, useMemo, useState } from 'react';
import type { Feel } from '../../../../core/document/feelSchema';
import type { Band, Player } from '../../../../core/document/playersSchema';
import type { Lane } from '../../../../core/document/schema';
import { fileName } from '../../../../core/document/text';
import { playerOf } from '../../../../core/feel/bandAt';
import { bandRun } from '../../../../core/feel/band';
import { bandFigures, FIGURE_SIXTEENTHS, followsMost, tightnessOf } from '../../../../core/feel/bandFigures';
import { attentionLeft, BAND_PRESETS, playedAs } from '../../../../core/feel/bandPresets';
import { writePlayers } from '../../../../core/feel/playersText';
import { metronomeSet } from '../../../store/transport';
import { selectBeat, useApp, useDo } from '../../../store/store';
import { BandMap } from '../../../strings/BandMap';
import { CheckBox } from '../../../ui/CheckBox';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { figure, percent } from '../../../ui/figures';
import { saveText } from '../../../ui/files';
import { Chips, Group } from '../../../ui/Layout';
import { Later } from '../../../ui/Later';
import { Range } from '../../../ui/Range';
import { Para } from '../../../ui/Words';
import { words } from '../../../words/players';
import { editShownFeel } from '../edit';

const driftChart = async () => (await import('../charts')).DriftChart;

const OWN = 'own';
/** A thread that has just been drawn. */
const FIRST_SHARE = 0.25;

const set = (band: Band, gesture?: string) => editShownFeel({ edit: 'setBand', args: { band } }, gesture);

/** More of one thing that a player goes by takes from the rest, all alike, where there is no attention left. */
const withShare = (player: Player, key: string | null, value: number): Player => {
  const rest = Object.entries(player.follows).reduce(
    (sum, [id, share]) => sum + (id === key ? 0 : share),
    key === null ? 0 : player.click,
  );
  const scale = rest > 1 - value && rest > 0 ? (1 - value) / rest : 1;
  const follows = Object.fromEntries([
    ...Object.entries(player.follows)
      .filter(([id]) => id !== key)
      .map(([id, share]): [string, number] => [id, share * scale]),
    ...(key !== null && value > 0 ? [[key, value] as [string, number]] : []),
  ]);
  return { ...player, click: key === null ? value : player.click * scale, follows };
};

const changed = (band: Band, player: Player): Band => ({
  ...band,
  players: band.players.map((one) => (one.id === player.id ? player : one)),
});

const presetOf = (band: Band): string =>
  BAND_PRESETS.find(
    (preset) => JSON.stringify(playedAs(band.players, preset)) === JSON.stringify(band.players),
  )?.id ?? OWN;

const Figures = ({ band, seed }: { band: Band; seed: number }) => {
  const { players } = useDeferredValue(band);
  const { spread, drift, fromClick } = useMemo(() => bandFigures(players, seed), [players, seed]);
  const how = words.how[tightnessOf(spread)];
  const told = players.length > 1 ? words.comesOut : words.alone;
  return (
    <>
      <Para live>{told(round(spread), how, round(drift))}</Para>
      <Drift players={players} seed={seed} fromClick={fromClick} />
    </>
  );
};

const EVERY = 4;
const round = (ms: number) => figure(Math.round(ms * 10) / 10);

/** Each player against the click; what draws it is large, and fetched with the other charts. */
const Drift = ({ players, seed, fromClick }: { players: Player[]; seed: number; fromClick: number[] }) => {
  const lines = useMemo(() => {
    const run = bandRun([{ from: 0, players, seed }]);
    return players.map(({ id }) =>
      Array.from({ length: FIGURE_SIXTEENTHS / EVERY }, (_, at) => ({ value: -run.heard(id, at * EVERY) })),
    );
  }, [players, seed]);
  const names = players.map(({ name }) => name);
  const told = names.map((name, at) => words.chartAbout(name, round(fromClick[at]!)));
  return (
    <Later
      of={driftChart}
      what={words.chart}
      waiting={null}
      given={{
        names,
        lines,
        label: `${words.chart}. ${told.join(' ')}`,
        ahead: words.ahead,
        behind: words.behind,
      }}
    />
  );
};

const PlayerPart = ({
  band,
  player,
  lanes,
  seed,
}: {
  band: Band;
  player: Player;
  lanes: Lane[];
  seed: number;
}) => {
  const { name } = player;
  const put = (next: Player, gesture?: string) => set(changed(band, next), gesture);
  const left = attentionLeft(player);
  const { apart } = bandFigures(band.players, seed);
  const own = band.players.indexOf(player);
  const mine = lanes.filter(({ id }) => playerOf(band, id).id === player.id).map((lane) => lane.name);
  const most = followsMost(player);
  const whom =
    most && (most.id === null ? words.theClick : band.players.find(({ id }) => id === most.id)!.name);
  return (
    <Group title={name}>
      <Para quiet>
        {mine.length ? words.plays(mine.join(', ')) : words.playsNothing}{' '}
        {whom ? words.goesBy(name, whom) : words.nobody(name)}
      </Para>
      <Range
        label={words.touchOf(name)}
        short={words.touch}
        value={player.touch}
        least={0}
        most={20}
        step={0.1}
        shown={words.ms(figure(player.touch))}
        onChange={(touch, gesture) => put({ ...player, touch }, gesture)}
      />
      <Figure
        of="clock"
        label={words.clockOf(name)}
        short={words.clock}
        value={player.clock}
        shown={words.ms(figure(player.clock))}
        onChange={(clock, gesture) => put({ ...player, clock }, gesture)}
      />
      <Para quiet>{words.touchAbout}</Para>
      <Figure
        of="share"
        label={words.clickOf(name)}
        short={words.click}
        value={player.click}
        onChange={(click, gesture) => put(withShare(player, null, click), gesture)}
      />
      {band.players
        .filter(({ id }) => id !== player.id)
        .map((other) => (
          <Figure
            of="share"
            key={other.id}
            label={words.followOf(name, other.name)}
            short={words.follows(other.name)}
            value={player.follows[other.id] ?? 0}
            onChange={(share, gesture) => put(withShare(player, other.id, share), gesture)}
          />
        ))}
      {band.players.map((other, at) =>
        at === own ? null : (
          <Para key={other.id} quiet>
            {words.apart(name, other.name, round(apart[own]![at]!))}
          </Para>
        ),
      )}
      <Para quiet live>
        {left > 0.005 ? words.attention(percent(left)) : words.noAttention}
      </Para>
    </Group>
  );
};

/** A lane is given to another player. */
const given = (band: Band, laneId: string, playerId: string): Band => ({
  ...band,
  players: band.players.map((player) => ({
    ...player,
    lanes: [...player.lanes.filter((id) => id !== laneId), ...(player.id === playerId ? [laneId] : [])],
  })),
});

/** Players who follow one another: a band to begin with, who goes by whom, how each plays, and what comes out of it. */
export const PlayersPart = ({ feel, band, lane }: { feel: Feel; band: Band; lane: Lane | undefined }) => {
  const act = useDo();
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const name = useApp((state) => selectBeat(state)!.name);
  const metronome = useApp(({ transport }) => transport.metronome);
  const [picked, setPicked] = useState<string | null>(null);
  const chosen = band.players.find(({ id }) => id === picked) ?? band.players[0]!;
  const { seed } = feel.humanize;
  const preset = presetOf(band);
  const about = BAND_PRESETS.find(({ id }) => id === preset)?.about;
  return (
    <>
      <Choice
        label={words.beginWith}
        short={words.band}
        value={preset}
        options={[
          ...(preset === OWN ? [{ value: OWN, name: words.ownBand }] : []),
          ...BAND_PRESETS.map(({ id, name: title }) => ({ value: id, name: title })),
        ]}
        onChange={(id) => {
          const found = BAND_PRESETS.find((one) => one.id === id);
          if (found) set({ ...band, players: playedAs(band.players, found) });
        }}
      />
      {about ? <Para quiet>{about}</Para> : null}
      <Figures band={band} seed={seed} />
      <Group title={words.map}>
        <BandMap
          label={words.map}
          players={band.players}
          threads={band.players.flatMap(({ id, follows }) =>
            Object.entries(follows).map(([to, share]) => ({ from: id, to, share })),
          )}
          chosen={chosen.id}
          onChoose={setPicked}
          onThread={(from, to) => {
            const player = band.players.find(({ id }) => id === from)!;
            if (!player.follows[to]) set(changed(band, withShare(player, to, FIRST_SHARE)));
          }}
        />
        <Para quiet>{words.mapAbout}</Para>
      </Group>
      <PlayerPart key={chosen.id} band={band} player={chosen} lanes={lanes} seed={seed} />
      {lane ? (
        <Choice
          label={words.givenTo(lane.name)}
          short={lane.name}
          value={playerOf(band, lane.id).id}
          options={band.players.map((player) => ({ value: player.id, name: player.name }))}
          onChange={(id) => set(given(band, lane.id, id))}
        />
      ) : null}
      <CheckBox checked={band.tempo} onChange={(tempo) => set({ ...band, tempo })}>
        {words.tempo}
      </CheckBox>
      <Para quiet>{words.tempoAbout}</Para>
      <Chips>
        <Chip pressed={metronome.on} onPress={() => act(metronomeSet({ on: !metronome.on }))}>
          {metronome.on ? words.metronomeOn : words.hear}
        </Chip>
        <Chip
          onPress={() =>
            saveText(
              writePlayers(band, seed, (id) => lanes.filter((one) => one.id === id).map(({ note }) => note)),
              `${fileName(name)}.players.json`,
            )
          }
        >
          {words.saveBand}
        </Chip>
      </Chips>
    </>
  );
};
