import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import {
  LIGHTS,
  padAddress,
  padNumber,
  placeOfNote,
  plainLayout,
  type Light,
} from '../../../core/ports/gridLayout';
import { colour } from '../../ui/tokens';
import { velocityAt } from '../../ui/velocityAt';
import { Para, Words } from '../../ui/Words';
import { Struck } from '../../web/Struck';
import { addressPart } from '../../web/openWindow';
import { words } from '../../words/ports';
import { StandInPage } from './StandInPage';
import { useStandIn } from './useStandIn';

const styles = StyleSheet.create({
  board: { width: '100%', maxWidth: 620, aspectRatio: 1, gap: 4, alignSelf: 'center' },
  large: { maxWidth: 960 },
  row: { flexDirection: 'row', flex: 1, gap: 4 },
  pad: {
    flex: 1,
    borderRadius: 6,
    borderWidth: 1,
    borderColor: colour.line,
    backgroundColor: colour.raised,
    alignItems: 'center',
    justifyContent: 'center',
  },
  bead: { width: '62%', aspectRatio: 1, borderRadius: 999 },
  string: { position: 'absolute', left: -4, right: -4, top: '50%', height: 1, backgroundColor: colour.pip },
  name: { fontSize: 10, textAlign: 'center', maxWidth: '100%', overflow: 'hidden' },
  ink: { color: colour.ground },
});

const COLOURS: Partial<Record<Light, string>> = {
  soft: colour.line,
  step: colour.weld,
  accent: colour.madder,
  here: colour.text,
  passing: colour.quiet,
  muted: colour.pip,
  solo: colour.lichen,
  chosen: colour.woad,
  button: colour.rule,
  on: colour.heather,
};

/** Which light a value is, on a plain grid. */
const lightOf = (size: number, value: number): Light => {
  const { lights } = plainLayout(size, size);
  return LIGHTS.find((light) => lights[light] === value) ?? 'off';
};

/** A grid of lit pads: it only shows what it is told, and tells what is pressed. */
export const GridStandIn = () => {
  const size = addressPart('size') === '16' ? 16 : 8;
  const layout = plainLayout(size, size);
  const [lights, setLights] = useState<Record<string, Light>>({});
  const send = useStandIn({
    name: words.gridName(size),
    device: 'grid',
    take: ([status = 0, note = 0, value]) => {
      const pad = (status & 0xf0) === 0x90 ? padNumber(layout, (status & 0x0f) + 1, note) : null;
      const place = pad === null ? null : placeOfNote(layout, pad);
      if (place) setLights((before) => ({ ...before, [`${place.x} ${place.y}`]: lightOf(size, value ?? 0) }));
    },
  });
  const sendPad = (kind: number, pad: number, value: number) => {
    const to = padAddress(layout, pad);
    send([kind | (to.channel - 1), to.note, value]);
  };
  return (
    <StandInPage title={words.gridName(size)}>
      <View style={[styles.board, size > 8 && styles.large]} role="group" aria-label={words.gridName(size)}>
        {layout.notes.map((row, y) => (
          <View key={y} style={styles.row}>
            {row.map((note, x) => {
              const light = lights[`${x} ${y}`] ?? 'off';
              const button = y === size - 1 ? words.buttons[x] : undefined;
              const back = COLOURS[light];
              return (
                <Struck
                  key={x}
                  onStrike={(height) => note !== null && sendPad(0x90, note, velocityAt(height))}
                  onRelease={() => note !== null && sendPad(0x80, note, 0)}
                >
                  <Pressable
                    role="button"
                    aria-label={button ?? words.pad(x + 1, y + 1, words.lights[light])}
                    aria-pressed={light !== 'off' && light !== 'button'}
                    disabled={note === null}
                    style={[styles.pad, button && back ? { backgroundColor: back } : null]}
                  >
                    {button ? (
                      <Words small style={[styles.name, light === 'chosen' && styles.ink]}>
                        {button}
                      </Words>
                    ) : (
                      <>
                        <View style={styles.string} />
                        {back ? <View style={[styles.bead, { backgroundColor: back }]} /> : null}
                      </>
                    )}
                  </Pressable>
                </Struck>
              );
            })}
          </View>
        ))}
      </View>
      <Para quiet>{words.connected}</Para>
    </StandInPage>
  );
};
