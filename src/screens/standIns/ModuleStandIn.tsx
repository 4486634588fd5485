import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { newLane } from '../../../core/document/defaults';
import { DRUM_IDS, instrument } from '../../../core/document/instruments';
import { isRealTime } from '../../../core/ports/midiStream';
import { hearLane } from '../../audio/player';
import { CheckBox } from '../../ui/CheckBox';
import { colour } from '../../ui/tokens';
import { Heading, Para, Words } from '../../ui/Words';
import { Struck } from '../../web/Struck';
import { words } from '../../words/ports';
import { StandInPage } from './StandInPage';
import { useStandIn } from './useStandIn';

const styles = StyleSheet.create({
  keys: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
  key: {
    width: 84,
    height: 64,
    borderRadius: 8,
    borderWidth: 1,
    borderColor: colour.line,
    backgroundColor: colour.raised,
    alignItems: 'center',
    justifyContent: 'center',
  },
  log: {
    height: 220,
    overflow: 'scroll',
    borderWidth: 1,
    borderColor: colour.line,
    borderRadius: 8,
    padding: 8,
  },
});

const MOST_LINES = 200;
const KEYS = [36, 38, 39, 42, 46, 45, 50, 49, 51, 56, 70, 63];
const drumOf = (note: number) => DRUM_IDS.find((id) => instrument(id).note === note);

/** The velocity by where a key is struck, soft at its foot and hard at its head; in between by a key of the computer. */
const velocityAt = (height: number | null): number =>
  Math.round(30 + 97 * Math.min(1, Math.max(0, height ?? 0.7)));

/** A sound module: it sounds and prints what comes, and its keys play. */
export const ModuleStandIn = () => {
  const [lines, setLines] = useState<{ id: number; text: string }[]>([]);
  const [sounds, setSounds] = useState(true);
  const send = useStandIn({
    name: words.moduleName,
    device: 'module',
    take: ([status, note, velocity], time) => {
      if (isRealTime(status!) || (status! & 0xf0) !== 0x90 || !velocity) return;
      const text = `${words.at(time.toFixed(1))}: ${words.noteOn(note!, velocity, (status! & 15) + 1)}`;
      setLines((before) => [{ id: (before[0]?.id ?? 0) + 1, text }, ...before].slice(0, MOST_LINES));
      const drum = drumOf(note!);
      if (sounds && drum) void hearLane({ kit: 'quay' }, newLane('module', drum), velocity);
    },
  });
  return (
    <StandInPage title={words.moduleName}>
      <View style={styles.keys}>
        {KEYS.map((note) => {
          const name = instrument(drumOf(note)!).name;
          return (
            <Struck
              key={note}
              onStrike={(height, time) => send([0x99, note, velocityAt(height)], time)}
              onSlide={(height) => send([0xa9, note, velocityAt(height)])}
              onRelease={() => send([0x89, note, 0])}
            >
              <Pressable role="button" aria-label={words.key(name)} style={styles.key}>
                <Words small>{name}</Words>
              </Pressable>
            </Struck>
          );
        })}
      </View>
      <CheckBox checked={sounds} onChange={setSounds}>
        {words.sounds}
      </CheckBox>
      <Heading level={2}>{words.printed}</Heading>
      <View style={styles.log} role="log" aria-label={words.printed}>
        {lines.length ? (
          lines.map(({ id, text }) => (
            <Words key={id} small figure>
              {text}
            </Words>
          ))
        ) : (
          <Para quiet>{words.nothingCame}</Para>
        )}
      </View>
    </StandInPage>
  );
};
