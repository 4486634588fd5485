import { useEffect, useRef } from 'react';
import { barTicks, beatTicks } from '../../../core/beat/meter';
import type { Groove } from '../../../core/groove/groove';
import { Icon } from '../../ui/Icon';
import { IconButton } from '../../ui/IconButton';
import { play, progress, shaped, stopHearing, useHeard } from './audition';
import { grooveAside } from './tray';
import { aboutRow, barsWords } from './words';

/** How far a groove is: a line with its bars and beats, and the place in figures. */
const Progress = ({ groove, sounding }: { groove: Groove; sounding: boolean }) => {
  const line = useRef<HTMLSpanElement>(null);
  const figure = useRef<HTMLSpanElement>(null);
  const bar = barTicks(groove.meter);
  const beat = beatTicks(groove.meter);
  useEffect(() => {
    let frame = 0;
    const show = () => {
      const now = sounding ? progress() : null;
      if (line.current) line.current.style.transform = `scaleX(${now?.share ?? 0})`;
      const tick = now?.tick ?? 0;
      const text = `${Math.floor(tick / bar) + 1}.${Math.floor((tick % bar) / beat) + 1}`;
      if (figure.current && figure.current.textContent !== text) figure.current.textContent = text;
      if (sounding) frame = requestAnimationFrame(show);
    };
    show();
    return () => cancelAnimationFrame(frame);
  }, [groove, sounding, bar, beat]);
  const beats = Math.round((bar * groove.bars) / beat);
  return (
    <div className="groove-progress" aria-hidden>
      <div className="progress-line">
        {Array.from({ length: Math.min(beats, 64) - 1 }, (_, at) => (
          <i
            key={at}
            className={((at + 1) * beat) % bar === 0 ? 'bar' : undefined}
            style={{ left: `${((at + 1) / beats) * 100}%` }}
          />
        ))}
        <span ref={line} className="played" />
      </div>
      <span className="figure" ref={figure}>
        1.1
      </span>
    </div>
  );
};

interface GrooveBarProps {
  onPrevious: (() => void) | null;
  onNext: (() => void) | null;
  /** Opens the groove's page; null where it is open already. */
  onOpen: (() => void) | null;
}

/** The groove that was chosen: hear it, stop it, on to the next, look at it. */
export const GrooveBar = ({ onPrevious, onNext, onOpen }: GrooveBarProps) => {
  const heard = useHeard();
  const groove = shaped(heard);
  if (!groove) return null;
  return (
    <section className="groove-bar" aria-label="Chosen groove">
      <div className="groove-now">
        <span className="groove-name">{groove.name}</span>
        <span className="quiet">{heard.sounding ? barsWords(groove.bars) : aboutRow(groove)}</span>
        <Progress groove={groove} sounding={heard.sounding} />
      </div>
      <IconButton label="Previous groove" icon="left" disabled={!onPrevious} onPress={() => onPrevious?.()} />
      <button
        type="button"
        className="icon-button hear"
        aria-label={heard.sounding ? 'Stop the groove' : 'Hear the groove'}
        onClick={heard.sounding ? stopHearing : play}
      >
        <Icon name={heard.sounding ? 'stop' : 'play'} filled />
      </button>
      <IconButton label="Next groove" icon="right" disabled={!onNext} onPress={() => onNext?.()} />
      <IconButton label="Set the groove aside in the tray" icon="tray" onPress={() => grooveAside(groove)} />
      {onOpen ? (
        <button type="button" className="chip" onClick={onOpen}>
          Open
        </button>
      ) : null}
    </section>
  );
};
