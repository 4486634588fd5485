import { StyleSheet } from 'react-native';
import { colour } from '../../ui/tokens';

export const styles = StyleSheet.create({
  patternBody: { flexDirection: 'row', flex: 1, minHeight: 0 },
  narrow: { flexDirection: 'column' },
  tools: { flexDirection: 'row', alignItems: 'center', paddingHorizontal: 4, minHeight: 44 },
  tool: { paddingHorizontal: 8 },
  gap: { flex: 1 },
  choice: { alignSelf: 'flex-start', justifyContent: 'center', minHeight: 28, maxWidth: '100%' },
  choiceWords: { color: colour.woad, fontWeight: '600', fontSize: 14 },
  foot: {
    position: 'sticky',
    left: 0,
    width: '100cqw',
    paddingTop: 4,
    paddingHorizontal: 12,
    paddingBottom: 12,
  } as object,
  kit: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 44 },
  kitAbout: { flexShrink: 1, fontSize: 13 },
  skeleton: { flex: 1, minHeight: 0 },
  skeletonLane: { height: 48, paddingLeft: 12, justifyContent: 'center' },
  skeletonName: { width: 56, height: 8, borderRadius: 4, backgroundColor: colour.raised },
  trial: { gap: 4 },
  together: { flexDirection: 'row', alignItems: 'center', gap: 8, paddingHorizontal: 12 },
  togetherWords: { flexShrink: 1 },
  // Its room is kept while it is fetched.
  drawerRoom: {
    height: '46%',
    backgroundColor: colour.raised,
    borderTopWidth: 1,
    borderTopColor: colour.line,
  },
  drawerWide: {
    width: 340,
    height: 'auto',
    borderTopWidth: 0,
    borderLeftWidth: 1,
    borderLeftColor: colour.line,
  },

  patternRow: {
    flex: 1,
    minWidth: 0,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 12,
    minHeight: 60,
    paddingVertical: 6,
    paddingHorizontal: 8,
    borderLeftWidth: 5,
    borderBottomWidth: 1,
    borderBottomColor: colour.line,
  },
  current: { backgroundColor: colour.ground },
  patternWords: { flex: 1, minWidth: 0 },
});
