import { useState } from 'react';
import { createIndexedBytes } from '../../keeping/indexedBytes';
import { roomUsed, type Room, type RoomKind } from '../../keeping/room';
import { SAMPLES } from '../../keeping/samples';
import { persistence } from '../../keeping/session';
import { browserStorage } from '../../keeping/storage';
import { useAppStore } from '../../store/store';
import { noticed } from '../../store/slices';
import { Action } from '../../ui/Action';
import { Chips } from '../../ui/Layout';
import { Table } from '../../ui/Table';
import { Para } from '../../ui/Words';
import { words } from '../../words/beats';

const samples = createIndexedBytes(SAMPLES);
const storage = browserStorage();

const KINDS: Record<RoomKind, string> = {
  beats: words.roomBeats,
  grooves: words.roomGrooves,
  kits: words.roomKits,
  played: words.roomPlayed,
  other: words.roomOther,
};

/** What takes room in the browser, told when it is asked for; what nothing needs can be cleared. */
export const RoomUsed = () => {
  const store = useAppStore();
  const [room, setRoom] = useState<Room | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const inReach = () => persistence.samplesInReach();
  const look = async () => {
    setBusy(true);
    try {
      setRoom(await roomUsed({ storage, bytes: samples, inReach }));
      const { usage, quota } = (await navigator.storage?.estimate?.()) ?? {};
      setSaid(usage !== undefined && quota ? words.roomOf(words.size(usage), words.size(quota)) : null);
    } catch {
      setSaid(words.theBrowsersStorageCannotBe);
    }
    setBusy(false);
  };
  const clear = async () => {
    // It is looked at once more: a beat may have come to need one of them meanwhile. What came in since was not offered.
    const offered = new Set(room?.unused?.names);
    const now = await roomUsed({ storage, bytes: samples, inReach }).catch(() => null);
    const names = (now?.unused?.names ?? []).filter((name) => offered.has(name));
    const size =
      names.length === now?.unused?.names.length
        ? now.unused.bytes
        : (await samples.sizes(names)).reduce((sum, one) => sum + (one ?? 0), 0);
    await samples.remove(names);
    store.dispatch(noticed({ text: words.cleared(names.length, words.size(size)), subject: 'file' }));
    await look();
  };
  const unused = room?.unused;
  return (
    <>
      <Chips>
        <Action
          label={busy ? words.lookingThroughIt : words.whatTakesRoom}
          kind="outline"
          disabled={busy}
          onPress={() => void look()}
        />
        {unused?.names.length ? (
          <Action
            label={words.clearUnused(unused.names.length, words.size(unused.bytes))}
            kind="outline"
            tone="danger"
            onPress={() => void clear()}
          />
        ) : null}
      </Chips>
      {said ? <Para quiet>{said}</Para> : null}
      {room ? (
        <>
          <Table
            label={words.whatTakesRoom}
            columns={[words.kindOfThing, words.howMany, words.howLarge]}
            figures={[0, 1]}
            rows={[
              {
                key: 'samples',
                name: words.roomSamples,
                count: room.samples.count,
                bytes: room.samples.bytes,
              },
              ...room.texts.map(({ kind, count, bytes }) => ({ key: kind, name: KINDS[kind], count, bytes })),
            ].map(({ key, name, count, bytes }) => ({
              key,
              name,
              cells: [String(count), words.size(bytes)],
            }))}
          />
          {unused === null ? <Para quiet>{words.unusedNotKnown}</Para> : null}
        </>
      ) : null}
    </>
  );
};
