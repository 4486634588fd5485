import { Table } from '../../ui/Table';
import { Para, Heading, Words } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { useEffect, useMemo, useState } from 'react';
import { INSTRUMENTS } from '../../../core/document/instruments';
import { summaryLines, aheadText, oneFigure } from '../../../core/analysis/reportText';
import type { FeelReport } from '../../../core/analysis/measure';
import { tempoNote, wholeFitBars } from '../../../core/groove/fit';
import type { Groove } from '../../../core/groove/groove';
import { keepsGroove, toggleGroove } from '../../../core/groove/favourites';
import { kitFor } from '../../../core/samples/fitting';
import { kitToldOf } from '../../../core/synthesis/kitList';
import { kitSet } from '../../store/doc';
import { groovesChanged } from '../../store/grooves';
import { useApp, useDo } from '../../store/store';
import { Chip } from '../../ui/Chip';
import { Chips } from '../../ui/Layout';
import { Tabs, tabId } from '../../ui/Tabs';
import { askReport } from '../../workers/askReport';
import { shaped, useHeard } from './audition';
import { BringIn } from './BringIn';
import { FileReadingPanel } from './FileReading';
import { GroovePicture } from '../../strings/GroovePicture';
import { LikeThis } from './LikeThis';
import { Revoice } from './Revoice';
import { aboutRow } from './words';
import { words } from '../../words/grooves';
import { words as playerWords } from '../../words/players';
import { Disclosure } from '../../ui/Disclosure';
import { AsPlayed } from '../AsPlayed';

const PAGES = [
  { id: 'what', name: words.whatItIs },
  { id: 'bring', name: words.bringIn },
  { id: 'voice', name: words.reVoice },
  { id: 'like', name: words.likeThis },
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
  if (report === null) return <Para quiet>{words.measuringItsFeel}</Para>;
  if (typeof report === 'string') return <Para quiet>{report}</Para>;
  return (
    <>
      {summaryLines(report).map((line) => (
        <Para key={line}>{line}</Para>
      ))}
      <Table
        label={words.theDrumsOfGroove(groove.name)}
        columns={[words.drum, words.hits, words.timingColumn, words.velocity]}
        figures={[0]}
        rows={report.lanes.map((lane) => {
          const own = groove.lanes[Number(lane.lane)];
          return {
            key: lane.lane,
            name: own?.unknown ? words.noteNote(own.note) : own ? INSTRUMENTS[own.instrument].name : '',
            cells: [
              String(lane.notes),
              aheadText(lane.meanSwung),
              `${oneFigure(lane.velocity)} ± ${oneFigure(lane.velocitySpread)}`,
            ],
          };
        })}
      />
    </>
  );
};

const PlayedGroove = ({ groove }: { groove: Groove }) => {
  const source = useMemo(() => ({ kind: 'groove' as const, groove }), [groove]);
  return <AsPlayed name={groove.name} source={source} />;
};

/** The kit that suits a groove, where one stands out. */
const KitFor = ({ groove, tempo }: { groove: Groove; tempo: number }) => {
  const act = useDo();
  const kit = useApp((state) => state.doc.beat?.kit);
  const found = kitFor({
    style: `${groove.style} ${groove.tags.join(' ')}`,
    tempo,
    instruments: groove.lanes.map(({ instrument }) => instrument),
  });
  if (!found || !kit || found.kit === kit) return null;
  const { name } = kitToldOf(found.kit);
  return (
    <Chips>
      <Words quiet>{words.kitSuits(name, found.why)}</Words>
      <Chip onPress={() => act(kitSet({ kit: found.kit }))}>{words.playOnKit(name)}</Chip>
    </Chips>
  );
};

const WhatItIs = ({ groove }: { groove: Groove }) => {
  const tempo = useApp((state) => state.doc.beat?.tempo ?? groove.bpm);
  const note = tempoNote(groove, tempo);
  const [low, high] = groove.tempos;
  return (
    <>
      {note ? (
        <View style={styles.tempoNote}>
          <Para note>{note}</Para>
        </View>
      ) : (
        <Para>{words.madeForLowToHigh(Math.round(low), Math.round(high), Math.round(tempo))}</Para>
      )}
      <Para quiet>{[groove.path.join(' / '), groove.tags.join(', ')].filter(Boolean).join(' · ')}</Para>
      <KitFor groove={groove} tempo={tempo} />
      {groove.source === 'built-in' ? null : <FileReadingPanel groove={groove} />}
      <Heading level={3}>{words.itsFeel}</Heading>
      <Report groove={groove} />
      <Disclosure title={playerWords.howPlayed}>
        <PlayedGroove groove={groove} />
      </Disclosure>
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
      <View style={styles.grooveHead}>
        <View style={styles.headTexts}>
          <Heading level={2} style={styles.name}>
            {groove.name}
          </Heading>
          <Words small quiet>
            {aboutRow({ ...now, bars: wholeFitBars(groove, heard.fit) })}
          </Words>
        </View>
        <Chip
          label={words.keepGroove(groove.name)}
          pressed={kept}
          onPress={() => act(groovesChanged({ keepers: toggleGroove(keepers, groove) }))}
        >
          {kept ? words.kept : words.keep}
        </Chip>
      </View>
      <GroovePicture groove={now} />
      <Tabs label={words.groove} tabs={PAGES} value={page} onChange={setPage} panel="groove-page" />
      <View
        style={styles.groovePage}
        {...({
          id: 'groove-page',
          role: 'tabpanel',
          'aria-labelledby': tabId('groove-page', page),
        } as object)}
      >
        {page === 'what' ? <WhatItIs groove={now} /> : null}
        {page === 'bring' ? <BringIn groove={groove} now={now} /> : null}
        {page === 'voice' ? <Revoice groove={groove} /> : null}
        {page === 'like' ? <LikeThis groove={groove} /> : null}
      </View>
    </>
  );
};
