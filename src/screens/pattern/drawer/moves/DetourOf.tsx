import { Figure } from '../../../../ui/Figure';
import { nanoid } from '@reduxjs/toolkit';
import { DETOUR_SLOTS } from '../../../../../core/document/choices';
import type { Detour } from '../../../../../core/document/schema';
import { isAsWritten, KNOWN_ROUTES, knownRoute, randomRoute } from '../../../../../core/play/moves/detours';
import { playedRoutes, playedTick, turnRoute } from '../../../../audio/player';
import { beatEdited } from '../../../../store/doc';
import { recallRoute } from '../../../../store/recallRoute';
import { recordRoutes } from '../../../../store/routeRecorder';
import { noticed } from '../../../../store/slices';
import { routesAtSet } from '../../../../store/transport';
import { selectBeat, selectPattern, useApp, useAppStore, useDo } from '../../../../store/store';
import { RouteHand } from '../../../../strings/RouteHand';
import { CheckBox } from '../../../../ui/CheckBox';
import { Chip } from '../../../../ui/Chip';
import { Choice } from '../../../../ui/Choice';
import { Disclosure } from '../../../../ui/Disclosure';
import { Chips, Group } from '../../../../ui/Layout';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/make';
import { edit } from '../edit';
import { newSeed } from '../make/settings';

const DETOUR: Detour = { over: 'bar', route: knownRoute('as written', 8), chance: 1, lanes: null };

/** The order in which slots of the pattern are played. */
export const DetourOf = () => {
  const act = useDo();
  const detour = useApp((state) => selectPattern(state)!.detour);
  const lanes = useApp((state) => selectBeat(state)!.lanes);
  const routes = useApp((state) => selectBeat(state)!.routes) ?? [];
  const routesAt = useApp(({ transport }) => transport.routesAt);
  const store = useAppStore();
  const now = detour ?? DETOUR;
  const slots = now.route.length;
  const set = (change: Partial<Detour>, gesture?: string) => {
    const next = { ...now, ...change };
    edit('setDetour', { detour: isAsWritten(next.route) && !detour ? null : next }, gesture);
  };
  const chosen = now.lanes ?? lanes.map(({ id }) => id);
  return (
    <Group title={words.detour}>
      <RouteHand route={now.route} onChange={(route, gesture) => set({ route }, gesture)} />
      <Chips label={words.knownRoutes}>
        {KNOWN_ROUTES.filter((name) => name !== 'as written').map((name) => (
          <Chip key={name} onPress={() => set({ route: knownRoute(name, slots) })}>
            {words.routeNames[name]}
          </Chip>
        ))}
        <Chip onPress={() => set({ route: randomRoute(slots, newSeed()) })}>{words.byChance}</Chip>
        {detour ? <Chip onPress={() => edit('setDetour', { detour: null })}>{words.noDetour}</Chip> : null}
      </Chips>
      <Choice
        label={words.over}
        short={words.overShort}
        value={now.over}
        options={[
          { value: 'bar', name: words.theBar },
          { value: 'all', name: words.thePattern },
        ]}
        onChange={(over) => set({ over })}
      />
      <Choice
        label={words.slotsOfRoute}
        short={words.intoShort}
        value={String(slots)}
        options={DETOUR_SLOTS.map((n) => ({ value: String(n), name: words.slotsMany(n) }))}
        onChange={(n) => set({ route: knownRoute('as written', Number(n)) })}
      />
      {detour ? (
        <>
          <Figure
            of="chance"
            label={words.howLikely}
            short={words.likelyShort}
            value={detour.chance}
            onChange={(chance, gesture) => set({ chance }, gesture)}
          />
          <Disclosure title={detour.lanes ? words.forSome(chosen.length, lanes.length) : words.forAllLanes}>
            <Chips label={words.detourLanes}>
              {lanes.map(({ id, name }) => (
                <CheckBox
                  key={id}
                  label={words.goesBy(name)}
                  checked={chosen.includes(id)}
                  onChange={(on) => {
                    const next = on ? [...chosen, id] : chosen.filter((one) => one !== id);
                    set({ lanes: lanes.every((lane) => next.includes(lane.id)) ? null : next });
                  }}
                >
                  {name}
                </CheckBox>
              ))}
            </Chips>
          </Disclosure>
          <Chips>
            <Chip
              onPress={() =>
                act(
                  beatEdited({
                    edit: {
                      edit: 'keepRoute',
                      args: { id: nanoid(), name: words.routeNumber(routes.length + 1), route: detour.route },
                    },
                  }),
                )
              }
            >
              {words.keepRoute}
            </Chip>
          </Chips>
        </>
      ) : null}
      {routes.length ? (
        <Chips label={words.keptRoutes}>
          {routes.map(({ id, name }, at) => (
            <Chip key={id} onPress={() => recallRoute(store, at + 1, playedTick(), turnRoute)}>
              {words.recallOf(name, at + 1)}
            </Chip>
          ))}
        </Chips>
      ) : null}
      {routes.length ? (
        <Choice
          label={words.routesBegin}
          short={words.routesBeginShort}
          value={routesAt}
          options={[
            { value: 'slot', name: words.atTheNextSlot },
            { value: 'bar', name: words.atTheNextBar },
          ]}
          onChange={(to) => act(routesAtSet(to))}
        />
      ) : null}
      {detour || routes.length ? <Switching /> : null}
    </Group>
  );
};

let endRecording: () => void = () => undefined;

/** The switching of routes while it plays, kept as takes and put into the song. */
const Switching = () => {
  const store = useAppStore();
  const act = useDo();
  const recording = useApp(({ transport }) => transport.recordingRoutes);
  const last = useApp(({ transport }) => transport.routesPlayed);
  const mine = useApp((state) => selectPattern(state)!.id === last?.patternId);
  const playing = useApp(({ transport }) => transport.playing);
  const passes = last ? last.to - last.from : 0;
  return (
    <>
      <Chips>
        <Chip
          pressed={recording}
          onPress={() => {
            if (recording) endRecording();
            else endRecording = recordRoutes(store, playedTick, playedRoutes);
          }}
        >
          {words.recordSwitching}
        </Chip>
        {last && mine ? (
          <Chip
            onPress={() => {
              const before = store.getState().doc.beat;
              act(
                beatEdited({
                  edit: { edit: 'passesToSong', args: { ...last, name: words.routesName, id: nanoid() } },
                }),
              );
              const done = store.getState().doc.beat !== before;
              act(noticed({ text: done ? words.routesInSong(passes) : words.noRoomInSong }));
            }}
          >
            {words.putIntoSong(passes)}
          </Chip>
        ) : null}
      </Chips>
      <Para quiet live>
        {recording
          ? playing
            ? words.recordingSwitching
            : words.recordingWaits
          : last && mine
            ? words.passesKept(passes)
            : words.recordSwitchingAbout}
      </Para>
    </>
  );
};
