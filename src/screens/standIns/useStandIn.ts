import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useEffectEvent, useRef } from 'react';
import type { MidiBytes } from '../../../core/ports/midiStream';
import { openCable, pageClock, plugIn, type StandIn } from '../../ports/cable';
import type { Device } from '../../ports/port';
import { listen } from '../../web/listen';

interface Parts {
  name: string;
  device: Device;
  /** A message is due now; it was given for a time of this page's clock. */
  take: (bytes: MidiBytes, time: number) => void;
  /** All that was for later is taken back. */
  cleared?: () => void;
}

/** Is plugged in as long as its page is there: messages wait until they are due. */
export const useStandIn = ({ name, device, take, cleared }: Parts) => {
  const standIn = useRef<StandIn | null>(null);
  const due = useEffectEvent(take);
  const clear = useEffectEvent(() => cleared?.());
  useEffect(() => {
    const waiting = new Set<ReturnType<typeof setTimeout>>();
    const one = plugIn(openCable(), pageClock(), {
      id: nanoid(),
      name,
      device,
      take: (bytes, time) => {
        const wait = time - performance.now();
        if (wait < 2) return due(bytes, time);
        const timer = setTimeout(() => {
          waiting.delete(timer);
          due(bytes, time);
        }, wait);
        waiting.add(timer);
      },
      clear: () => {
        waiting.forEach(clearTimeout);
        waiting.clear();
        clear();
      },
    });
    standIn.current = one;
    const stop = listen('pagehide', () => one.close());
    return () => {
      stop();
      waiting.forEach(clearTimeout);
      one.close();
    };
  }, [name, device]);
  return (bytes: MidiBytes, time?: number) => standIn.current?.send(bytes, time);
};
