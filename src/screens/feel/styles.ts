import { StyleSheet } from 'react-native';
import { colour, CORNER } from '../../ui/tokens';

/** The width of a lane's name before its controls, and of the figure behind them, in points. */
export const NAME_WIDTH = 84;
export const FIELD = 64;

export const styles = StyleSheet.create({
  head: { paddingLeft: 16 },
  feelScreen: { flex: 1, minHeight: 0 },
  feelBody: { flex: 1, minHeight: 0 },
  wide: { flexDirection: 'row' },
  feelStrings: {
    flexGrow: 1,
    flexShrink: 1,
    flexBasis: '42%',
    minWidth: 0,
    minHeight: 0,
    flexDirection: 'row',
    // What changes in one half is not laid out anew in the other.
    contain: 'strict',
  } as object,
  names: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16, rowGap: 4 },
  blindNote: { padding: 16 },
  comparing: {
    position: 'absolute',
    left: 16,
    bottom: 8,
    paddingVertical: 8,
    paddingHorizontal: 16,
    borderRadius: CORNER,
    backgroundColor: colour.text,
    zIndex: 6,
  },
  comparingWords: { color: colour.ground, fontWeight: '600' },
  feelPanel: {
    flexGrow: 1,
    flexShrink: 1,
    flexBasis: '58%',
    minHeight: 0,
    backgroundColor: colour.raised,
    borderTopWidth: 1,
    borderTopColor: colour.line,
    contain: 'strict',
  } as object,
  panelWide: {
    flexGrow: 0,
    flexShrink: 0,
    flexBasis: 420,
    borderTopWidth: 0,
    borderLeftWidth: 1,
    borderLeftColor: colour.line,
  },
  loading: { padding: 16 },
  stage: { borderBottomWidth: 1, borderBottomColor: colour.line },
  stageHead: { flexDirection: 'row', alignItems: 'center', gap: 8 },
  stageName: { flex: 1, minWidth: 0, minHeight: 56, flexDirection: 'row', alignItems: 'center', gap: 8 },
  stageWords: { flexShrink: 1 },
  passed: { color: colour.quiet, fontWeight: '400' },
  stageBody: { paddingBottom: 12 },
  ahead: { marginBottom: 8 },
  aheadRow: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 48 },
  name: { width: NAME_WIDTH },
  slider: { flexGrow: 1, flexShrink: 1, flexBasis: 0, minWidth: 0 },
  // Behind the sliders, from the first to the last: the beat in the middle, and a sixty-fourth on either side.
  marks: {
    position: 'absolute',
    top: 0,
    bottom: 0,
    left: NAME_WIDTH + 8,
    right: FIELD + 8,
    pointerEvents: 'none',
  },
  mark: { position: 'absolute', top: 0, bottom: 0, borderLeftWidth: 1, borderColor: colour.pip },
  dotted: { borderStyle: 'dotted' },
  pairRow: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 48 },
  heads: { minHeight: 28 },
  half: { flexGrow: 1, flexShrink: 1, flexBasis: 0, minWidth: 0 },
  // Under its slider: beside it a phone has no room for both.
  withFigure: { minHeight: 58 },
  pairFigure: { fontSize: 11, lineHeight: 14, marginTop: -2, textAlign: 'center' },
  tallies: { flexDirection: 'column-reverse' },
  of: { fontSize: 14 },
  reports: { gap: 16 },
  report: { marginTop: 8 },
});
