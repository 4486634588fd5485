import { Paper } from '../../strings/Paper';
import { Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useRef, useState } from 'react';
import type { OutFile } from '../../../core/export/exporting';
import { useInk } from '../../strings/ink';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { fetchReader } from './reader';
import { words } from '../../words/export';

/** So many bars are drawn at once: a whole song takes the page too long. */
const BARS = 16;
/** Smaller than on paper: a busy bar fits the width of a phone. */
const ZOOM = 0.6;

type State = 'drawing' | 'drawn' | 'failed';

interface SheetProps {
  xml: string;
  /** Up to and with this bar, from 1. */
  upTo: number;
}

/** Draws a part as a notation program would; the program that draws it is fetched for the first part. */
const useDrawn = ({ xml, upTo }: SheetProps) => {
  const paper = useRef<HTMLDivElement>(null);
  const ink = useInk();
  const [state, setState] = useState<State>('drawing');
  useEffect(() => {
    let wanted = true;
    const draw = async () => {
      const Reader = await fetchReader();
      const element = paper.current;
      if (!wanted || !element || !ink) return;
      element.replaceChildren();
      const reader = new Reader(element, {
        backend: 'svg',
        autoResize: false,
        drawPartNames: false,
        // It stands above as the name of the file.
        drawTitle: false,
        drawingParameters: 'compacttight',
        drawUpToMeasureNumber: upTo,
        defaultColorMusic: ink.text,
      });
      await reader.load(xml);
      if (!wanted) return;
      reader.zoom = ZOOM;
      reader.render();
      setState('drawn');
    };
    draw().catch(() => wanted && setState('failed'));
    return () => {
      wanted = false;
    };
  }, [xml, upTo, ink]);
  return { paper, state };
};

const SAID: Record<State, string> = {
  drawing: words.thePartIsBeingDrawn,
  drawn: '',
  failed: words.thePartCouldNotBe,
};

const Sheet = ({ file }: { file: OutFile }) => {
  const [upTo, setUpTo] = useState(BARS);
  const shown = Math.min(upTo, file.bars);
  const { paper, state } = useDrawn({ xml: file.data as string, upTo: shown });
  return (
    <>
      <Paper onElement={paper} label={words.bars1ToShownOf(shown, file.name)} />
      <Para quiet live>
        {SAID[state]}
      </Para>
      {shown < file.bars ? (
        <Chip onPress={() => setUpTo(upTo + BARS)}>{words.drawMoreShownOfBars(shown, file.bars)}</Chip>
      ) : null}
    </>
  );
};

/** The drum part, to be looked at before it is written. */
export const PartPreview = ({ files }: { files: OutFile[] }) => {
  const [open, setOpen] = useState(false);
  const [at, setAt] = useState(0);
  const file = files[Math.min(at, files.length - 1)]!;
  return (
    <View role="region" style={styles.partPreview} aria-label={words.thePart}>
      <Chip pressed={open} onPress={() => setOpen(!open)}>
        {words.lookAtThePart}
      </Chip>
      {open && files.length > 1 ? (
        <Choice
          label={words.whichPart}
          short={words.which}
          value={String(at)}
          options={files.map(({ name }, index) => ({ value: String(index), name }))}
          onChange={(value) => setAt(Number(value))}
        />
      ) : null}
      {open ? <Sheet key={file.name} file={file} /> : null}
    </View>
  );
};
