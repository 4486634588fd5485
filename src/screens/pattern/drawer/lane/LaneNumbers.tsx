import { useState } from 'react';
import { instrument } from '../../../../../core/document/instruments';
import type { Lane } from '../../../../../core/document/schema';
import { noteRow, USUAL_ROWS, type NoteRow } from '../../../../../core/ports/gridLayout';
import { beatEdited } from '../../../../store/doc';
import { noticed } from '../../../../store/slices';
import { useDo } from '../../../../store/store';
import { Chip } from '../../../../ui/Chip';
import { Disclosure } from '../../../../ui/Disclosure';
import { Chips, Figures } from '../../../../ui/Layout';
import { ScaleChoice } from '../../../../ui/ScaleChoice';
import { WholeFigures } from '../../../../ui/WholeFigures';
import { Para } from '../../../../ui/Words';
import { words } from '../../../../words/drawer';

type Row = Omit<NoteRow, 'count'>;

const FIGURES = [
  { key: 'first', label: words.firstLane, short: words.firstLaneShort, least: 0, most: 127 },
  { key: 'step', label: words.nextLane, short: words.nextLaneShort, least: 1, most: 24 },
] as const;

/** Notes for all lanes at once: a first one, and how far it is to the next. */
export const LaneNumbers = ({ lanes }: { lanes: readonly Lane[] }) => {
  const act = useDo();
  const [row, setRow] = useState<Row>(USUAL_ROWS[0]!.row);
  // What plays pitches has its note as the one that they are counted from.
  const plain = lanes.filter(({ tuning }) => !tuning);
  const number = (notes: number[], text: string, gesture?: string) => {
    const args = { notes: Object.fromEntries(plain.map(({ id }, at) => [id, notes[at]!])) };
    act(beatEdited({ edit: { edit: 'numberLanes', args }, ...(gesture && { gesture }) }));
    act(noticed({ text, subject: 'notes' }));
  };
  const change = (next: Row, gesture?: string) => {
    const notes = noteRow({ ...next, count: plain.length });
    if (!notes) return void act(noticed({ text: words.noteWouldLeave, subject: 'notes' }));
    setRow(next);
    number(notes, words.lanesNumbered(notes[0]!, notes.at(-1)!), gesture);
  };
  if (!plain.length) return null;
  return (
    <Disclosure title={words.numberAllLanes}>
      <Para quiet>{words.numberAllLanesAbout}</Para>
      <Chips label={words.usualNumbers}>
        <Chip
          onPress={() =>
            number(
              plain.map((lane) => instrument(lane.instrument).note),
              words.lanesAsGeneralMidi,
            )
          }
        >
          {words.generalMidi}
        </Chip>
        {USUAL_ROWS.map((one) => (
          <Chip key={one.name} onPress={() => change(one.row)}>
            {one.name}
          </Chip>
        ))}
      </Chips>
      <Figures>
        <WholeFigures
          of={FIGURES}
          values={row}
          width={88}
          onChange={(some, gesture) => change({ ...row, ...some }, gesture)}
        />
      </Figures>
      <ScaleChoice
        value={row.scale ?? ''}
        of={words.theLanes}
        onChange={(scale) => change({ first: row.first, step: row.step, ...(scale && { scale }) })}
      />
    </Disclosure>
  );
};
