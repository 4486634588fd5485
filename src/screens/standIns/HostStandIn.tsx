import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { createClockFollower } from '../../../core/ports/clockFollower';
import { TEMPO } from '../../../core/units';
import { Action } from '../../ui/Action';
import { figure } from '../../ui/figures';
import { Chips, Figures } from '../../ui/Layout';
import { NumberField } from '../../ui/NumberField';
import { Range } from '../../ui/Range';
import { Para, Words } from '../../ui/Words';
import { words } from '../../words/ports';
import { createHostClock, type HostSettings } from './hostClock';
import { StandInPage } from './StandInPage';
import { useStandIn } from './useStandIn';

const WORK_MS = 4;

const placeText = (ticks: number): string =>
  `${Math.floor(ticks / 96) + 1}.${(Math.floor(ticks / 24) % 4) + 1}.${(Math.floor(ticks / 6) % 4) + 1}`;

/** A transport with tempo, place and loop, that leads Ruddik or follows it. */
export const HostStandIn = () => {
  const [settings, setSettings] = useState<HostSettings>({ bpm: 112, jitter: 0, bar: 1, loop: 0 });
  const [place, setPlace] = useState('1.1.1');
  const [runs, setRuns] = useState(false);
  const [led, setLed] = useState<string | null>(null);
  const follower = useRef(createClockFollower());
  const count = useRef(0);
  const send = useStandIn({
    name: words.hostName,
    device: 'host',
    take: ([status, low, high], time) => {
      if (status === 0xf8) {
        follower.current.tick(time);
        count.current += 1;
        if (count.current % 6 === 0) {
          const { bpm } = follower.current.state(time);
          setPlace(placeText(count.current));
          setLed(bpm === null ? null : figure(Math.round(bpm * 100) / 100));
        }
      } else if (status === 0xfa) count.current = 0;
      else if (status === 0xf2) count.current = (low! + 128 * high!) * 6;
      else if (status === 0xfc) setLed(null);
    },
  });
  const asked = useEffectEvent(() => settings);
  const sent = useEffectEvent(send);
  const clock = useRef<ReturnType<typeof createHostClock> | null>(null);
  useEffect(() => {
    const own = createHostClock({
      now: () => performance.now(),
      send: (bytes, time) => sent(bytes, time),
      random: Math.random,
      settings: () => asked(),
      onPlace: (ticks) => ticks % 6 === 0 && setPlace(placeText(ticks)),
    });
    clock.current = own;
    const timer = setInterval(own.work, WORK_MS);
    return () => {
      clearInterval(timer);
      if (own.runs()) own.stop();
    };
  }, []);
  const change = (some: Partial<HostSettings>) => setSettings((before) => ({ ...before, ...some }));
  const run = (how: 'start' | 'resume' | 'stop') => {
    clock.current?.[how]();
    setRuns(how !== 'stop');
  };
  return (
    <StandInPage title={words.hostName}>
      <Words figure bold aria-label={words.place}>
        {place}
      </Words>
      <Chips>
        <Action
          label={runs ? words.stop : words.play}
          kind="filled"
          onPress={() => run(runs ? 'stop' : 'start')}
        />
        <Action label={words.continues} kind="outline" disabled={runs} onPress={() => run('resume')} />
      </Chips>
      <Figures>
        <NumberField
          label={words.tempo}
          value={settings.bpm}
          {...TEMPO}
          under={words.bpm}
          width={80}
          onChange={(bpm) => change({ bpm })}
        />
        <NumberField
          label={words.beginAt}
          value={settings.bar}
          least={1}
          most={999}
          under={words.bars(settings.bar)}
          width={80}
          onChange={(bar) => change({ bar: Math.round(bar) })}
        />
        <NumberField
          label={words.loop}
          value={settings.loop}
          least={0}
          most={64}
          under={settings.loop ? words.loopBars(settings.loop) : words.noLoop}
          width={80}
          onChange={(loop) => change({ loop: Math.round(loop) })}
        />
      </Figures>
      <Range
        label={words.jitter}
        short={words.jitterShort}
        value={settings.jitter}
        least={0}
        most={10}
        step={0.5}
        shown={words.ms(settings.jitter)}
        onChange={(jitter) => change({ jitter })}
      />
      <Para live>{led ? words.follows('Ruddik', led) : words.connected}</Para>
    </StandInPage>
  );
};
