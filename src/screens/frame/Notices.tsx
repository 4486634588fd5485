import { useEffect } from 'react';
import { View } from 'react-native';
import { noticeDismissed, type NoticeState, type NoticeAction } from '../../store/slices';
import { useApp, useDo } from '../../store/store';
import { Action } from '../../ui/Action';
import { Notice as Shown } from '../../ui/Notice';

const SHOWN_MS = 6000;

interface OneProps {
  notice: NoticeState;
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
    <Shown
      text={notice.text}
      tone={notice.tone === 'danger' ? 'danger' : 'plain'}
      onDismiss={() => act(noticeDismissed(id))}
    >
      {[also, action].map((one) =>
        one ? (
          <Action key={one.label} label={one.label} kind="outline" onPress={() => onAction(one.does)} />
        ) : null,
      )}
    </Shown>
  );
};

/** What happened, what was kept and what to do next. */
export const Notices = ({ onAction }: { onAction: (action: NoticeAction) => void }) => {
  const notices = useApp((state) => state.notices);
  return (
    <View aria-live="polite">
      {notices.map((notice) => (
        <One key={notice.id} notice={notice} onAction={onAction} />
      ))}
    </View>
  );
};
