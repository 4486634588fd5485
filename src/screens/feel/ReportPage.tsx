import { Table } from '../../ui/Table';
import { Chips } from '../../ui/Layout';
import { View } from 'react-native';
import { styles } from './styles';
import { Heading, Para } from '../../ui/Words';
import { useEffect, useMemo, useState } from 'react';
import type { Read } from '../../../core/document/file';
import type { Template } from '../../../core/document/feelSchema';
import type { Beat, Pattern } from '../../../core/document/schema';
import type { FeelReport, LaneReport } from '../../../core/analysis/measure';
import {
  aheadText,
  compareReports,
  differenceText,
  nothingShared,
  oneFigure,
  summaryLines,
  unlikeTerms,
} from '../../../core/analysis/reportText';
import { TEMPLATES } from '../../../core/feel/templates';
import { instrumentOf } from '../../../core/document/instruments';
import type { ReportSource } from '../../workers/reportOf';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { FilePick } from '../../web/FilePick';
import { askReport } from '../../workers/askReport';
import { words } from '../../words/feel';
import { words as playerWords } from '../../words/players';
import { Disclosure } from '../../ui/Disclosure';
import { AsPlayed } from '../AsPlayed';

/** A report is taken over so many passes, so that chance and humanize even out. */
const PASSES = 4;

interface OpenFile {
  name: string;
  bytes: Uint8Array;
}

type Asked = { name: string; source: ReportSource };

const laneNames =
  (beat: Beat) =>
  (lane: string): string => {
    const known = beat.lanes.find(({ id }) => id === lane)?.name;
    if (known) return known;
    const [channel, note] = lane.split('/');
    if (note === undefined) return words.slots;
    return (
      (channel === '10' ? instrumentOf(Number(note)) : null) ?? words.noteNoteChannelChannel(note, channel)
    );
  };

/** What lanes of a beat and notes of a file are matched by: channel and note number. */
const laneKeys =
  (beat: Beat) =>
  (lane: string): string => {
    const own = beat.lanes.find(({ id }) => id === lane);
    return own ? `${own.channel}/${own.note}` : lane;
  };

const useReport = (asked: Asked | null): Read<FeelReport> | null => {
  const [got, setGot] = useState<{ of: Asked; report: Read<FeelReport> } | null>(null);
  useEffect(() => {
    if (!asked) return;
    let wanted = true;
    void askReport(asked.source).then((report) => wanted && setGot({ of: asked, report }));
    return () => {
      wanted = false;
    };
  }, [asked]);
  return asked && got?.of === asked ? got.report : null;
};

const LanesTable = ({
  lanes,
  name,
  of,
}: {
  lanes: LaneReport[];
  name: (lane: string) => string;
  of: string;
}) => (
  <Table
    label={words.theLanesOfOf(of)}
    columns={[words.lane, words.notes, words.timingColumn, words.spread, words.velocity]}
    figures={[0, 2, 3]}
    rows={lanes.map((lane) => ({
      key: lane.lane,
      name: name(lane.lane),
      cells: [
        String(lane.notes),
        aheadText(lane.meanSwung),
        words.spreadSwungMs(oneFigure(lane.spreadSwung)),
        `${oneFigure(lane.velocity)} ± ${oneFigure(lane.velocitySpread)}`,
      ],
    }))}
  />
);

const Lines = ({
  title,
  asked,
  report,
  beat,
}: {
  title: string;
  asked: Asked | null;
  report: Read<FeelReport> | null;
  beat: Beat;
}) => {
  if (!asked) return null;
  return (
    <View role="region" style={styles.report} aria-label={`${title}: ${asked.name}`} aria-busy={!report}>
      <Heading level={2}>{asked.name}</Heading>
      {!report ? <Para quiet>{words.measuring}</Para> : null}
      {report && !report.ok ? <Para>{report.error}</Para> : null}
      {report?.ok ? (
        <>
          {summaryLines(report.value).map((line) => (
            <Para key={line}>{line}</Para>
          ))}
          <LanesTable lanes={report.value.lanes} name={laneNames(beat)} of={asked.name} />
        </>
      ) : null}
    </View>
  );
};

interface DifferencesProps {
  first: FeelReport;
  second: FeelReport;
  names: [string, string];
  beat: Beat;
  /** False where one is a template, which has slots and no lanes. */
  lanes: boolean;
}

/** Two reports side by side, figure by figure. */
const Differences = ({ first, second, names, beat, lanes }: DifferencesProps) => {
  const [name, key] = [laneNames(beat), laneKeys(beat)];
  const rows = compareReports(first, second, name, key);
  const terms = unlikeTerms(first, second);
  const apart = lanes ? nothingShared(first, second, name, key) : null;
  const text = (figure: number | null, unit: string) =>
    figure === null ? words.noFigure : `${oneFigure(figure)}${unit}`;
  return (
    <View role="region" style={styles.report} aria-label={words.differences}>
      <Heading level={2}>{words.sideBySide}</Heading>
      <Table
        label={words.bothSideBySide}
        columns={[{ heard: words.figure }, ...names, words.difference]}
        figures={[0, 1, 2]}
        rows={rows.map((row) => ({
          key: row.what,
          name: row.what,
          cells: [text(row.from, row.unit), text(row.to, row.unit), differenceText(row)],
        }))}
      />
      {terms ? <Para>{terms}</Para> : null}
      {apart ? <Para>{apart}</Para> : null}
    </View>
  );
};

const askedOf = (value: string, file: OpenFile | null, own: Template[], bpm: number): Asked | null => {
  if (value === 'file' && file) return { name: file.name, source: { kind: 'file', bytes: file.bytes } };
  const shape = [...own, ...TEMPLATES].find(({ id }) => id === value);
  return shape ? { name: shape.name, source: { kind: 'template', shape, bpm } } : null;
};

interface ReportPageProps {
  beat: Beat;
  pattern: Pattern;
  /** A file that was dropped on the screen. */
  dropped: OpenFile | null;
}

/** How the pattern is played, in words and figures, and set against a file or a template. */
export const ReportPage = ({ beat, pattern, dropped }: ReportPageProps) => {
  const [seen, setSeen] = useState<OpenFile | null>(null);
  const [file, setFile] = useState<OpenFile | null>(null);
  const [of, setOf] = useState('');
  const [against, setAgainst] = useState('');
  const [mine, setMine] = useState<Asked | null>(null);
  const own = beat.templates;
  const templates: Template[] = [...own, ...TEMPLATES];
  const other = useMemo(() => askedOf(against, file, own, beat.tempo), [against, file, own, beat.tempo]);
  const instead = useMemo(() => askedOf(of, file, own, beat.tempo), [of, file, own, beat.tempo]);
  const open = (opened: OpenFile) => {
    setFile(opened);
    setAgainst('file');
  };
  if (dropped && dropped !== seen) {
    setSeen(dropped);
    open(dropped);
  }

  useEffect(() => {
    // A drag changes the beat at every move; the report waits for its end.
    const timer = setTimeout(
      () =>
        setMine({
          name: pattern.name,
          source: {
            kind: 'pattern',
            beat: { ...beat, patterns: [pattern] },
            patternId: pattern.id,
            passes: PASSES,
          },
        }),
      250,
    );
    return () => clearTimeout(timer);
  }, [beat, pattern]);

  const shown = instead ?? mine;
  const [first, second] = [useReport(shown), useReport(other)];
  // A file that is looked at can be played by.
  const played = [shown, other].find((one) => one?.source.kind === 'file');
  const others = [
    ...(file ? [{ value: 'file', name: file.name }] : []),
    ...templates.map(({ id, name }) => ({ value: id, name: words.templateCalled(name) })),
  ];
  return (
    <>
      <Choice
        label={words.reportOf}
        short={words.reportOf}
        value={of}
        options={[{ value: '', name: words.patternCalled(pattern.name) }, ...others]}
        onChange={setOf}
      />
      <Choice
        label={words.setItAgainst}
        short={words.against}
        value={against}
        options={[{ value: '', name: words.nothing }, ...others]}
        onChange={setAgainst}
      />
      <Chips>
        <FilePick
          label={words.openAMidiFileTo}
          accept=".mid,.midi"
          onFile={(name, bytes) => open({ name, bytes })}
        >
          {words.openAMidiFile}
        </FilePick>
        {other ? <Chip onPress={() => setAgainst('')}>{words.againstNothing}</Chip> : null}
      </Chips>
      {shown && other && first?.ok && second?.ok ? (
        <Differences
          first={first.value}
          second={second.value}
          names={[shown.name, other.name]}
          beat={beat}
          lanes={![shown, other].some(({ source }) => source.kind === 'template')}
        />
      ) : null}
      <View style={styles.reports}>
        <Lines title={words.report} asked={shown} report={first} beat={beat} />
        <Lines title={words.setAgainst} asked={other} report={second} beat={beat} />
      </View>
      {played ? (
        <Disclosure title={playerWords.howPlayed}>
          <AsPlayed name={played.name} source={played.source} />
        </Disclosure>
      ) : null}
    </>
  );
};
