import { useEffect, useState } from 'react';
import { INSTRUMENTS } from '../../../core/beat/instruments';
import { summaryLines, aheadText, oneFigure } from '../../../core/feel/reportText';
import type { FeelReport } from '../../../core/feel/measure';
import { tempoNote } from '../../../core/groove/fit';
import type { Groove } from '../../../core/groove/groove';
import { keepsGroove, turnGroove } from '../../../core/groove/keepers';
import { groovesChanged } from '../../state/grooves';
import { useApp, useDo } from '../../state/store';
import { Chip } from '../../ui/Chip';
import { Tabs } from '../../ui/Tabs';
import { askReport } from '../../workers/askReport';
import { shaped, useHeard } from './audition';
import { BringIn } from './BringIn';
import { FileReading } from './FileReading';
import { GroovePicture } from './GroovePicture';
import { LikeThis } from './LikeThis';
import { Revoice } from './Revoice';
import { aboutRow } from './words';

const PAGES = [
  { id: 'what', name: 'What it is' },
  { id: 'bring', name: 'Bring in' },
  { id: 'voice', name: 'Re-voice' },
  { id: 'like', name: 'Like this' },
] as const;
type Page = (typeof PAGES)[number]['id'];

const useReport = (groove: Groove): FeelReport | string | null => {
  const [report, setReport] = useState<FeelReport | string | null>(null);
  useEffect(() => {
    let current = true;
    void askReport({ kind: 'groove', groove }).then((read) => {
      if (current) setReport(read.ok ? read.value : read.error);
    });
    return () => {
      current = false;
    };
  }, [groove]);
  return report;
};

const Report = ({ groove }: { groove: Groove }) => {
  const report = useReport(groove);
  if (report === null) return <p className="quiet">Measuring its feel…</p>;
  if (typeof report === 'string') return <p className="quiet">{report}</p>;
  return (
    <>
      {summaryLines(report).map((line) => (
        <p key={line}>{line}</p>
      ))}
      <table className="report-table">
        <thead>
          <tr>
            <th scope="col">Drum</th>
            <th scope="col">Hits</th>
            <th scope="col">Lies</th>
            <th scope="col">Velocity</th>
          </tr>
        </thead>
        <tbody>
          {report.lanes.map((lane) => {
            const own = groove.lanes[Number(lane.lane)];
            return (
              <tr key={lane.lane}>
                <th scope="row">
                  {own?.unknown ? `Note ${own.note}` : own && INSTRUMENTS[own.instrument].name}
                </th>
                <td className="figure">{lane.notes}</td>
                <td>{aheadText(lane.meanSwung)}</td>
                <td className="figure">{`${oneFigure(lane.velocity)} ± ${oneFigure(lane.velocitySpread)}`}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
};

const WhatItIs = ({ groove }: { groove: Groove }) => {
  const tempo = useApp((state) => state.doc.beat?.tempo ?? groove.bpm);
  const note = tempoNote(groove, tempo);
  const [low, high] = groove.tempos;
  return (
    <>
      {note ? (
        <p className="tempo-note" role="note">
          {note}
        </p>
      ) : (
        <p>{`Made for ${Math.round(low)} to ${Math.round(high)} BPM; your beat at ${Math.round(tempo)} suits it.`}</p>
      )}
      <p className="quiet">{[groove.path.join(' / '), groove.tags.join(', ')].filter(Boolean).join(' · ')}</p>
      {groove.source === 'built-in' ? null : <FileReading groove={groove} />}
      <h3>Its feel</h3>
      <Report groove={groove} />
    </>
  );
};

/** A groove: what it is, brought in, played with other voices, and what is like it. */
export const GroovePage = ({ groove }: { groove: Groove }) => {
  const [page, setPage] = useState<Page>('what');
  const heard = useHeard();
  const keepers = useApp((state) => state.grooves.keepers);
  const act = useDo();
  const now = shaped({ ...heard, groove })!;
  const kept = keepsGroove(keepers, groove.id);
  return (
    <>
      <header className="groove-head">
        <div>
          <h2>{groove.name}</h2>
          <p className="quiet">{aboutRow(now)}</p>
        </div>
        <Chip
          label={`Keep ${groove.name}`}
          pressed={kept}
          onPress={() => act(groovesChanged({ keepers: turnGroove(keepers, groove) }))}
        >
          {kept ? 'Kept' : 'Keep'}
        </Chip>
      </header>
      <GroovePicture groove={now} />
      <Tabs label="Groove" tabs={PAGES} value={page} onChange={setPage} />
      <div className="groove-page" role="tabpanel" aria-label={PAGES.find(({ id }) => id === page)!.name}>
        {page === 'what' ? <WhatItIs groove={now} /> : null}
        {page === 'bring' ? <BringIn groove={groove} now={now} /> : null}
        {page === 'voice' ? <Revoice groove={groove} /> : null}
        {page === 'like' ? <LikeThis groove={groove} /> : null}
      </div>
    </>
  );
};
