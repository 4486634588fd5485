import { useContext, useEffect, useState, useSyncExternalStore } from 'react';
import { StyleSheet, View } from 'react-native';
import { noteName } from '../../../core/document/noteName';
import { fileName } from '../../../core/document/text';
import {
  LAYOUTS,
  learntLayout,
  mostOf,
  noteBlock,
  plainLayout,
  readLayout,
  usualBlocks,
  writeLayout,
  type GridLayout,
  type NoteBlock,
  type PadHeard,
} from '../../../core/ports/gridLayout';
import { openPorts, type Live } from '../../ports/live';
import type { ShownPort } from '../../ports/hub';
import { layoutOf, type PortSetting } from '../../ports/settings';
import { noticed } from '../../store/slices';
import { portsWanted } from '../../store/input';
import { selectBeat, useApp, useDo } from '../../store/store';
import { Action } from '../../ui/Action';
import { CheckBox } from '../../ui/CheckBox';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { Disclosure } from '../../ui/Disclosure';
import { figure } from '../../ui/figures';
import { saveText } from '../../ui/files';
import { Chips, Figures, Group, Item, Items, ScreenHead } from '../../ui/Layout';
import { NumberField } from '../../ui/NumberField';
import { WholeFigures } from '../../ui/WholeFigures';
import { ScaleChoice } from '../../ui/ScaleChoice';
import { Page } from '../../ui/Page';
import { PlayContext } from '../../ui/playing';
import { colour } from '../../ui/tokens';
import { Para, Words } from '../../ui/Words';
import { FilePick } from '../../web/FilePick';
import { openWindow } from '../../web/openWindow';
import { words } from '../../words/ports';

const styles = StyleSheet.create({
  head: { paddingLeft: 16 },
  inner: { maxWidth: 1180 },
  // Beside one another as far as there is room for them.
  ports: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 32, rowGap: 12 },
  item: { flexGrow: 1, flexShrink: 1, flexBasis: 340, maxWidth: '100%', minWidth: 0 },
  line: { flexDirection: 'row', alignItems: 'center', gap: 10, flexWrap: 'wrap' },
  light: { width: 12, height: 12, borderRadius: 6, borderWidth: 1, borderColor: colour.pip },
  lit: { backgroundColor: colour.weld, borderColor: colour.weld },
  port: { gap: 4, width: '100%' },
});

const STAND_INS: { href: string; name: string }[] = [
  { href: '/stand-ins/grid', name: words.grid8 },
  { href: '/stand-ins/grid?size=16', name: words.grid16 },
  { href: '/stand-ins/host', name: words.host },
  { href: '/stand-ins/module', name: words.module },
];

/** A light goes out so long after something went by. */
const LIGHT_MS = 160;

/** Two lights that show what goes in and out, and how many notes did not leave as they should. */
const Traffic = ({ live, name, counts }: { live: Live; name: string; counts: boolean }) => {
  const [[hears, sends], setLit] = useState([false, false]);
  const [told, setTold] = useState('');
  useEffect(() => {
    const timer = setInterval(() => {
      const { heardAt, sentAt } = live.hub.lights(name);
      const now = performance.now();
      const next = [now - heardAt < LIGHT_MS, now - sentAt < LIGHT_MS] as [boolean, boolean];
      setLit((before) => (before[0] === next[0] && before[1] === next[1] ? before : next));
      const { late, doubled } = live.hub.count(name);
      setTold(words.lateAndDoubled(late, doubled));
    }, LIGHT_MS / 2);
    return () => clearInterval(timer);
  }, [live, name]);
  return (
    <View style={styles.line}>
      <View style={styles.line} aria-hidden>
        <View style={[styles.light, hears && styles.lit]} />
        <Words small quiet>
          {words.heardNow}
        </Words>
        <View style={[styles.light, sends && styles.lit]} />
        <Words small quiet>
          {words.sentNow}
        </Words>
      </View>
      {counts ? (
        <Words small quiet>
          {told}
        </Words>
      ) : null}
    </View>
  );
};

const LOOK_MS = 1000;

/** How much of what other windows said made no sense; nothing where all of it did. */
const PassedOver = ({ live }: { live: Live }) => {
  const [passed, setPassed] = useState(live.hub.passedOver());
  useEffect(() => {
    const timer = setInterval(() => setPassed(live.hub.passedOver()), LOOK_MS);
    return () => clearInterval(timer);
  }, [live]);
  return passed ? (
    <Para quiet live>
      {words.passedOver(passed)}
    </Para>
  ) : null;
};

const CHANNELS = [
  { value: '0', name: words.ownChannels },
  ...Array.from({ length: 16 }, (_, at) => ({ value: String(at + 1), name: String(at + 1) })),
];
const INPUTS = (Object.keys(words.inputs) as PortSetting['input'][]).map((value) => ({
  value,
  name: words.inputs[value],
}));

interface PortProps {
  live: Live;
  port: ShownPort;
}

const SIZES = [4, 8, 16];

/** Pads are learnt one after the other, from the top left. */
const Learn = ({ live, name, layout }: { live: Live; name: string; layout: GridLayout }) => {
  const [pressed, setPressed] = useState<PadHeard[] | null>(null);
  const learning = pressed !== null;
  useEffect(() => {
    if (!learning) return;
    return live.hub.learn(name, (heard) =>
      setPressed((before) => {
        const again = before?.some(({ channel, note }) => channel === heard.channel && note === heard.note);
        return before && !again ? [...before, heard] : before;
      }),
    );
  }, [live, name, learning]);
  const places = layout.columns * layout.rows;
  const keep = () => {
    if (pressed?.length)
      live.hub.set(name, { layout: { ...learntLayout(layout, pressed), name: words.learntName(name) } });
    setPressed(null);
  };
  return (
    <>
      <Chips>
        <Chip pressed={learning} onPress={() => (learning ? keep() : setPressed([]))}>
          {learning ? words.keepLearnt : words.learnPads}
        </Chip>
        {learning ? <Chip onPress={() => setPressed(null)}>{words.cancel}</Chip> : null}
      </Chips>
      {learning ? <Para live>{words.pressPads(pressed.length, places)}</Para> : null}
    </>
  );
};

const BLOCK_FIGURES = [
  { key: 'first', label: words.firstNote, least: 0, most: 127 },
  { key: 'column', label: words.nextColumn, least: 1, most: 24 },
  { key: 'row', label: words.nextRow, least: 1, most: 24 },
] as const;

/** Numbers for all pads at once: a first note, and how far it is to the next column and row. */
const Block = ({ live, name, layout }: { live: Live; name: string; layout: GridLayout }) => {
  const [block, setBlock] = useState<Omit<NoteBlock, 'columns' | 'rows'>>(
    () => usualBlocks(layout.columns)[0]!.block,
  );
  const change = (some: Partial<NoteBlock>) => {
    const next = { ...block, ...some };
    setBlock(next);
    const { columns, rows } = layout;
    const notes = noteBlock({ ...next, columns, rows }, mostOf(layout));
    live.hub.set(name, { layout: { ...layout, notes, name: words.blockName(name) } });
  };
  const resize = (size: number) =>
    live.hub.set(name, { layout: { ...plainLayout(size, size), channel: layout.channel } });
  return (
    <Disclosure title={words.numberPads}>
      <Chips label={words.usualBlocks}>
        {usualBlocks(layout.columns).map((one) => (
          <Chip key={one.name} onPress={() => change({ scale: '', ...one.block })}>
            {one.name}
          </Chip>
        ))}
      </Chips>
      <Figures>
        <WholeFigures of={BLOCK_FIGURES} values={block} width={96} onChange={change} />
        <NumberField
          label={words.gridChannel}
          value={layout.channel}
          least={1}
          most={16}
          under={words.channelShort}
          width={72}
          onChange={(channel) => live.hub.set(name, { layout: { ...layout, channel: Math.round(channel) } })}
        />
      </Figures>
      <ScaleChoice
        value={block.scale ?? ''}
        of={words.ofPads(name)}
        onChange={(scale) => change({ scale })}
      />
      <Chips label={words.howManyPads}>
        {SIZES.map((size) => (
          <Chip key={size} pressed={layout.columns === size} onPress={() => resize(size)}>
            {words.sizeOf(size)}
          </Chip>
        ))}
      </Chips>
      <Learn live={live} name={name} layout={layout} />
    </Disclosure>
  );
};

/** How the pads of a surface are numbered: one of those that ship, or a file's. */
const Pads = ({ live, port: { name, setting } }: PortProps) => {
  const act = useDo();
  const own = setting.layout;
  const known = LAYOUTS.find((one) => one.name === own?.name);
  const open = (bytes: Uint8Array) => {
    const read = readLayout(new TextDecoder().decode(bytes));
    if (read.ok) live.hub.set(name, { layout: read.value });
    else act(noticed({ text: read.error, tone: 'danger', subject: 'ports' }));
  };
  return (
    <>
      <Choice
        label={words.layoutOf(name)}
        short={words.layoutShort}
        value={own?.name ?? ''}
        options={[
          { value: '', name: words.plainLayout },
          ...LAYOUTS.map((one) => ({ value: one.name, name: one.name })),
          ...(own && !known ? [{ value: own.name, name: words.ownLayout(own.name) }] : []),
        ]}
        onChange={(wanted) =>
          live.hub.set(name, { layout: LAYOUTS.find((one) => one.name === wanted) ?? null })
        }
      />
      <Chips>
        <FilePick label={words.openLayout} accept=".json" onFile={(_, bytes) => open(bytes)}>
          {words.openLayout}
        </FilePick>
        <Chip
          onPress={() => {
            const layout = layoutOf(name, setting);
            saveText(writeLayout(layout), `${fileName(layout.name)}.ruddik-grid.json`);
          }}
        >
          {words.saveLayout}
        </Chip>
      </Chips>
      <Block live={live} name={name} layout={layoutOf(name, setting)} />
    </>
  );
};

const Port = ({ live, port }: PortProps) => {
  const { name, there, hears, sends, setting } = port;
  const lanes = useApp((state) => selectBeat(state)?.lanes);
  const names = useApp(({ look }) => look.noteNames);
  const set = (change: Partial<PortSetting>) => live.hub.set(name, change);
  const chosen = setting.lanes ?? lanes?.map(({ id }) => id) ?? [];
  const turn = (id: string, on: boolean) => {
    const next = on ? [...chosen, id] : chosen.filter((one) => one !== id);
    set({ lanes: lanes?.every((lane) => next.includes(lane.id)) ? null : next });
  };
  return (
    <Item ruled style={styles.item}>
      <View style={styles.port} role="group" aria-label={name}>
        <View style={styles.line}>
          <Words bold>{name}</Words>
          <Words small quiet>
            {there ? words.there : words.gone}
          </Words>
          {there ? <Traffic live={live} name={name} counts={port.sends && port.setting.notes} /> : null}
        </View>
        {hears || !there ? (
          <Choice
            label={words.inputOf(name)}
            short={words.heardAs}
            value={setting.input}
            options={INPUTS}
            onChange={(input) => set({ input })}
          />
        ) : null}
        {setting.input === 'patterns' ? (
          <Choice
            label={words.firstPattern(name)}
            short={words.firstPatternShort}
            value={String(setting.firstPattern)}
            options={Array.from({ length: 116 }, (_, note) => ({
              value: String(note),
              name: `${note} ${noteName(note, names)}`.trim(),
            }))}
            onChange={(note) => set({ firstPattern: Number(note) })}
          />
        ) : null}
        {setting.input === 'grid' ? <Pads live={live} port={port} /> : null}
        {sends ? (
          <>
            <CheckBox
              label={words.notesOut(name)}
              checked={setting.notes}
              onChange={(notes) => set({ notes })}
            >
              {words.notesOutShort}
            </CheckBox>
            {setting.notes ? (
              <>
                <Choice
                  label={words.channelOf(name)}
                  short={words.channelShort}
                  value={String(setting.channel)}
                  options={CHANNELS}
                  onChange={(channel) => set({ channel: Number(channel) })}
                />
                <Disclosure title={words.lanesOf(name)}>
                  <Chips>
                    {(lanes ?? []).map((lane) => (
                      <CheckBox
                        key={lane.id}
                        checked={chosen.includes(lane.id)}
                        onChange={(on) => turn(lane.id, on)}
                      >
                        {lane.name}
                      </CheckBox>
                    ))}
                  </Chips>
                </Disclosure>
              </>
            ) : null}
            <CheckBox
              label={words.clockOut(name)}
              checked={setting.clock}
              onChange={(clock) => set({ clock })}
            >
              {words.clockOutShort}
            </CheckBox>
          </>
        ) : null}
        {there ? null : (
          <Chip label={words.forget(name)} onPress={() => live.hub.forget(name)}>
            {words.forgetShort}
          </Chip>
        )}
      </View>
    </Item>
  );
};

/** Who leads the tempo, in a sentence. */
const leaderText = (leader: { name: string; bpm: number | null; runs: boolean } | null): string => {
  if (!leader) return words.ruddikLeads;
  if (leader.bpm === null) return words.waitsFor(leader.name);
  return leader.runs
    ? words.follows(leader.name, figure(leader.bpm))
    : words.stopped(leader.name, figure(leader.bpm));
};

const PortList = ({ live }: { live: Live }) => {
  const ports = useSyncExternalStore(live.hub.onChange, live.hub.ports);
  const allowed = useApp(({ input }) => input.machinePorts);
  const leader = useApp(({ transport }) => transport.leader);
  const [said, setSaid] = useState<string | null>(null);
  return (
    <>
      <Para live>{leaderText(leader)}</Para>
      <Chips>
        {allowed ? null : (
          <Action
            label={words.useDevices}
            kind="outline"
            onPress={() => void live.askMachine().then(setSaid)}
          />
        )}
        <Action label={words.panic} kind="outline" onPress={live.panic} />
      </Chips>
      {said ? <Para live>{said}</Para> : null}
      <Group title={words.openStandIn}>
        <Chips>
          {STAND_INS.map(({ href, name }) => (
            <Chip key={href} onPress={() => openWindow(href)}>
              {name}
            </Chip>
          ))}
        </Chips>
        <PassedOver live={live} />
      </Group>
      {ports.length ? (
        <Items label={words.portList} style={styles.ports}>
          {ports.map((port) => (
            <Port key={port.name} live={live} port={port} />
          ))}
        </Items>
      ) : (
        <Para quiet>{live.isElsewhere() ? words.elsewhere : words.none}</Para>
      )}
    </>
  );
};

/** What stands outside: devices of the machine, stand-ins, what goes where. */
export const PortsScreen = () => {
  const act = useDo();
  const togglePlay = useContext(PlayContext);
  const [live, setLive] = useState<Live | null>(null);
  useEffect(() => {
    act(portsWanted());
    void openPorts(togglePlay).then(setLive);
  }, [act, togglePlay]);
  return (
    <>
      <ScreenHead title={words.ports} style={styles.head} under={<Words quiet>{words.about}</Words>} />
      <Page inner={styles.inner}>{live ? <PortList live={live} /> : null}</Page>
    </>
  );
};
