/** MIDI as bytes one after the other, made into messages: with running status, and with real-time bytes wherever they come. */

/** A message: its status and what comes with it. */
export type MidiBytes = readonly number[];

/** Longer than this, a system exclusive message is not kept: it is passed over and told. */
export const MOST_SYSEX = 65_536;

/** How many bytes follow a status. */
const following = (status: number): number => {
  const kind = status & 0xf0;
  if (kind === 0xc0 || kind === 0xd0) return 1;
  if (kind < 0xf0) return 2;
  return status === 0xf2 ? 2 : status === 0xf1 || status === 0xf3 ? 1 : 0;
};

/** Whether a byte is a message by itself that may come within any other. @example isRealTime(0xf8) // true */
export const isRealTime = (byte: number): boolean => byte >= 0xf8;

export interface MidiStreamParts {
  give: (message: MidiBytes, time: number) => void;
  /** A system exclusive message was too long, or bytes came that belong to nothing: how many were passed over. */
  onLost?: (bytes: number) => void;
}

/**
 * Reads bytes as they come, in any pieces.
 *
 */
export const createMidiStream = ({ give, onLost }: MidiStreamParts) => {
  let status = 0;
  let data: number[] = [];
  let sysex: number[] | null = null;
  let lost = 0;
  const tellLost = () => {
    if (lost) onLost?.(lost);
    lost = 0;
  };
  const endSysex = (time: number, whole: boolean) => {
    if (sysex && whole && !lost) give([...sysex, 0xf7], time);
    else if (sysex && !lost) lost = sysex.length;
    sysex = null;
    tellLost();
  };
  const take = (byte: number, time: number): void => {
    if (isRealTime(byte)) return give([byte], time);
    if (byte === 0xf7) return endSysex(time, true);
    if (byte >= 0x80) {
      // Another status cuts a system exclusive message short, and what a message before was still waiting for.
      endSysex(time, false);
      data = [];
      if (byte === 0xf0) {
        sysex = [0xf0];
        status = 0;
        return;
      }
      status = byte;
      if (following(byte) === 0) {
        give([byte], time);
        status = 0;
      }
      return;
    }
    if (sysex) {
      if (sysex.length >= MOST_SYSEX) lost += lost ? 1 : sysex.length;
      else sysex.push(byte);
      return;
    }
    if (!status) {
      lost += 1;
      return tellLost();
    }
    data.push(byte);
    if (data.length < following(status)) return;
    give([status, ...data], time);
    data = [];
    // System common messages have no running status.
    if (status >= 0xf0) status = 0;
  };
  return (bytes: Iterable<number>, time: number): void => {
    for (const byte of bytes) take(byte & 0xff, time);
  };
};
