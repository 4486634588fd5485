import { useEffect } from 'react';
import { StyleSheet, Text, View } from 'react-native';
import { noticeDismissed, type Notice, type NoticeAction } from '../../state/slices';
import { useApp, useDo } from '../../state/store';
import { Action } from '../../ui/Action';
import { Icon } from '../../ui/Icon';
import { colour, font } from '../../ui/tokens';

const styles = StyleSheet.create({
  notice: {
    flexDirection: 'row',
    alignItems: 'center',
    flexWrap: 'wrap',
    paddingLeft: 16,
    paddingRight: 4,
    paddingVertical: 4,
    backgroundColor: colour.raised,
    borderLeftWidth: 4,
  },
  text: {
    flex: 1,
    minWidth: 200,
    fontFamily: font.words,
    fontSize: 15,
    color: colour.text,
    paddingVertical: 8,
  },
});

const SHOWN_MS = 6000;

interface OneProps {
  notice: Notice;
  onAction: (action: NoticeAction) => void;
}

const One = ({ notice, onAction }: OneProps) => {
  const act = useDo();
  const { id, lasting, action, also } = notice;
  useEffect(() => {
    if (lasting) return;
    const timer = setTimeout(() => act(noticeDismissed(id)), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [act, id, lasting]);
  return (
    <View
      role={notice.tone === 'danger' ? 'alert' : 'status'}
      style={[styles.notice, { borderLeftColor: notice.tone === 'danger' ? colour.ruddle : colour.woad }]}
    >
      <Text style={styles.text}>{notice.text}</Text>
      {[also, action].map((one) =>
        one ? (
          <Action key={one.label} label={one.label} kind="outline" onPress={() => onAction(one.does)} />
        ) : null,
      )}
      <Action
        label="Dismiss"
        iconOnly
        icon={<Icon name="close" />}
        onPress={() => act(noticeDismissed(id))}
      />
    </View>
  );
};

/** What happened, what was kept and what to do next. */
export const Notices = ({ onAction }: { onAction: (action: NoticeAction) => void }) => {
  const notices = useApp((state) => state.notices);
  return (
    <div className="notices" aria-live="polite">
      {notices.map((notice) => (
        <One key={notice.id} notice={notice} onAction={onAction} />
      ))}
    </div>
  );
};
