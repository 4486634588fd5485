import type { MidiBytes } from '../../core/ports/midiStream';
import type { Ms, Ticks } from '../../core/units';
import {
  alignTo,
  armPlaying,
  foreseeLeap,
  heardAt,
  lookOn,
  playedTick,
  strikeLane,
  timeOfFrame,
} from '../audio/player';
import { heldOf, holdOutside, isHeard, playOutside } from '../audio/noteInput';
import { selectAudible } from '../store/audible';
import { store } from '../keeping/session';
import { noticed } from '../store/slices';
import { machinePortsAllowed } from '../store/input';
import { leaderTold, songPlaceSet } from '../store/transport';
import { browserStorage } from '../keeping/storage';
import { selectBeat } from '../store/store';
import { listen } from '../web/listen';
import { words } from '../words/ports';
import { createCable, openCable, pageClock } from './cable';
import { createFollowing, FOLLOW_LOOK_MS } from './following';
import { firstBar, type BarNote } from './firstBar';
import { createGrids } from './grids';
import { createHub, type Hub } from './hub';
import { openMachine } from './machine';
import { createPatternNotes } from './patternNotes';
import { createSending } from './sending';
import { layoutOf, readPortSettings, type PortSetting } from './settings';

/** The ports of the app as it runs: made once, when the person first wants any. */

const KEY = 'ports';
const storage = browserStorage();
const now = (): Ms => performance.now();

const say = (text: string, tone: 'plain' | 'danger' = 'plain') =>
  void store.dispatch(noticed({ text, tone, subject: 'ports' }));

export interface Live {
  hub: Hub;
  /** Asks for the machine's own ports; a sentence where there are none to be had. */
  askMachine: () => Promise<string | null>;
  panic: () => void;
  /** Whether another window of the app has the ports. */
  isElsewhere: () => boolean;
}

/** Said once: the same again and again would hide all else. */
const once = () => {
  const said = new Map<string, number>();
  return (text: string, tone?: 'danger') => {
    if (now() - (said.get(text) ?? -Infinity) < 10_000) return;
    said.set(text, now());
    say(text, tone);
  };
};

/** So often a player that is ready for a leader's start is kept awake. */
const ARM_MS: Ms = 2000;

/** @param togglePlay begins and ends play; at a time, where a leader says so */
const create = async (togglePlay: (at?: Ms) => void): Promise<Live> => {
  const warn = once();
  /** What would play now, and its first bar: worked out while the leader's clock ticks. */
  let ready: { of: unknown[]; notes: BarNote[] } | null = null;
  const prepared = (place: Ticks): BarNote[] => {
    const { transport, focus } = store.getState();
    const beat = selectAudible(store.getState());
    if (!beat) return [];
    const from = transport.song.shown && beat.song.order.length ? place : null;
    const of = [beat, focus.patternId, from];
    if (!ready?.of.every((one, at) => one === of[at]))
      ready = { of, notes: firstBar({ beat, patternId: focus.patternId, from }) };
    return ready!.notes;
  };
  let armed = 0;
  const following = createFollowing({
    now,
    onLeader: (leader) => store.dispatch(leaderTold(leader)),
    onSecond: (name, leads) => warn(words.twoLeaders(name, leads), 'danger'),
    arm: () => {
      prepared(0);
      if (now() - armed < ARM_MS) return;
      armed = now();
      armPlaying();
    },
    start: (place, at) => {
      armed = 0;
      // What is sent out does not wait for the sound of this page.
      sending.letGo(prepared(place), at);
      const { transport } = store.getState();
      if (transport.song.shown) store.dispatch(songPlaceSet(place));
      togglePlay(at);
    },
    stop: () => togglePlay(),
    leapt: (from, to) => foreseeLeap(to < from ? { from: to, to: from } : null),
    wentOn: () => foreseeLeap(null),
    isPlaying: () => store.getState().transport.playing,
    tickAt: (time) => {
      const heard = heardAt(time);
      return heard ? (heard.song ?? heard.tick) : null;
    },
    align: alignTo,
  });
  const grids = createGrids({ store, now, playedTick });

  const patternNotes = createPatternNotes(store, () => togglePlay());
  const takeNote = (setting: PortSetting, bytes: MidiBytes, time: Ms) => {
    const [status, note, velocity] = bytes;
    const kind = status! & 0xf0;
    const isOn = kind === 0x90 && !!velocity;
    if (setting.input === 'patterns') {
      if (isOn) patternNotes.on(setting.firstPattern, note!);
      else if (kind === 0x80 || kind === 0x90) patternNotes.off(setting.firstPattern, note!);
      return;
    }
    const held = heldOf(bytes);
    if (held) holdOutside(held);
    if (!isOn) return;
    const beat = selectBeat(store.getState());
    // Whoever plays in or learns a note hears it; with nobody listening it sounds its lane.
    if (isHeard()) return playOutside({ note: note!, velocity, time });
    const lane = beat?.lanes.find((one) => one.note === note);
    if (lane) void strikeLane(lane.id, velocity);
  };

  const hub: Hub = createHub({
    now,
    settings: readPortSettings(await storage.getItem(KEY).catch(() => null)),
    take: (name, setting, bytes, time) => {
      if (setting.input === 'clock' && following.take(name, bytes, time)) return;
      if (setting.input === 'grid' && grids.take(name, bytes)) return;
      if (setting.input === 'notes' || setting.input === 'patterns') takeNote(setting, bytes, time);
    },
    onPlug: (name, there) => {
      // What it held it cannot let go any more.
      if (!there) holdOutside({ note: null, pressure: null });
      say(there ? words.pluggedIn(name) : words.unplugged(name));
    },
    onLost: (name, bytes) => warn(words.lost(name, bytes)),
    onSettings: (settings) =>
      void storage.setMany({ [KEY]: JSON.stringify(settings) }).catch(() => undefined),
  });
  const sending = createSending({
    hub,
    timeOfFrame,
    lanes: () => selectBeat(store.getState())?.lanes.map(({ id }) => id) ?? [],
    now,
    soon: (work) => void setTimeout(work, 4),
  });
  lookOn(sending);
  // A window that goes leaves no note on.
  listen('pagehide', () => sending.stopped());

  const setGrids = () => {
    const outs = new Map(hub.outs().map((one) => [one.name, one.send]));
    grids.set(
      hub.ports().flatMap(({ name, there, setting }) => {
        const send = outs.get(name);
        return there && setting.input === 'grid' && send
          ? [{ name, layout: layoutOf(name, setting), send }]
          : [];
      }),
    );
    const { leader } = store.getState().transport;
    // Nobody is followed whose clock is not wanted any more.
    if (
      leader &&
      !hub.ports().some((one) => one.name === leader.name && one.there && one.setting.input === 'clock')
    )
      following.end();
  };
  hub.onChange(setGrids);
  store.subscribe(grids.draw);
  setInterval(() => {
    following.look();
    sending.feed();
    if (store.getState().transport.playing) grids.draw();
  }, FOLLOW_LOOK_MS / 4);
  // One window of the app speaks with what is outside: of two, both would do what is pressed.
  let has = false;
  const begin = () => {
    has = true;
    hub.add(createCable(openCable(), pageClock()));
  };
  if (navigator.locks)
    void navigator.locks.request('ruddik-ports', () => {
      begin();
      // It is had until the window goes.
      return new Promise<never>(() => undefined);
    });
  else begin();

  let machine = false;
  return {
    hub,
    askMachine: async () => {
      if (!has) return words.elsewhere;
      if (machine) return null;
      if (!('requestMIDIAccess' in navigator)) return words.noMidi;
      try {
        hub.add(await openMachine());
        machine = true;
        store.dispatch(machinePortsAllowed());
        return null;
      } catch {
        return words.notAllowed;
      }
    },
    panic: () => {
      hub.panic();
      say(words.silenced);
    },
    isElsewhere: () => !has,
  };
};

let live: Promise<Live> | null = null;

/** The one of the page. */
export const openPorts = (togglePlay: (at?: Ms) => void): Promise<Live> => (live ??= create(togglePlay));
