import { Words } from '../../ui/Words';
import { Chip } from '../../ui/Chip';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useRef } from 'react';
import { barTicks, beatTicks } from '../../../core/document/meter';
import type { Groove } from '../../../core/groove/groove';
import { IconButton } from '../../ui/IconButton';
import { play, progress, shaped, stopHearing, useHeard } from './audition';
import { grooveAside } from './tray';
import { aboutRow, barsWords } from './words';
import { words } from '../../words/grooves';

/** How far a groove is: a line with its bars and beats, and the place in figures. */
const Progress = ({ groove, sounding }: { groove: Groove; sounding: boolean }) => {
  const line = useRef<HTMLElement>(null);
  const figure = useRef<HTMLElement>(null);
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
    <View style={styles.grooveProgress} aria-hidden>
      <View style={styles.progressLine}>
        {Array.from({ length: Math.min(beats, 64) - 1 }, (_, at) => (
          <View
            key={at}
            style={[
              styles.beatMark,
              ((at + 1) * beat) % bar === 0 && styles.barMark,
              { left: `${((at + 1) / beats) * 100}%` },
            ]}
          />
        ))}
        <View ref={line as never} style={styles.played} />
      </View>
      <Words figure ref={figure} style={styles.grooveFigure}>
        1.1
      </Words>
    </View>
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
    <View role="region" style={styles.grooveBar} aria-label={words.chosenGroove}>
      <View style={styles.grooveNow}>
        <Words bold lines={1}>
          {groove.name}
        </Words>
        <Words small quiet lines={1}>
          {heard.sounding ? barsWords(groove.bars) : aboutRow(groove)}
        </Words>
        <Progress groove={groove} sounding={heard.sounding} />
      </View>
      <IconButton
        label={words.previousGroove}
        icon="left"
        disabled={!onPrevious}
        onPress={() => onPrevious?.()}
      />
      <IconButton
        label={heard.sounding ? words.stopTheGroove : words.hearTheGroove}
        icon={heard.sounding ? 'stop' : 'play'}
        filled
        onPress={heard.sounding ? stopHearing : play}
      />
      <IconButton label={words.nextGroove} icon="right" disabled={!onNext} onPress={() => onNext?.()} />
      <IconButton label={words.setTheGrooveAsideIn} icon="tray" onPress={() => grooveAside(groove)} />
      {onOpen ? <Chip onPress={onOpen}>{words.open}</Chip> : null}
    </View>
  );
};
