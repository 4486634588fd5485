import { count } from '../../core/document/text';
import type { LaneGroup, Lane } from '../../core/document/schema';
import { beatEdited } from '../store/doc';

import { selectPattern, useApp, useDo } from '../store/store';
import { spotsOf } from '../../core/edit/spots';
import { Icon } from '../ui/Icon';
import { words } from '../words/strings';
import { hitsSelected, laneOpened } from '../store/focus';
import { drawerTurned } from '../store/look';

/** The head of a group of lanes: folds them away, and mutes them together. */
export const GroupRow = ({ group, lanes }: { group: LaneGroup; lanes: Lane[] }) => {
  const act = useDo();
  const pattern = useApp(selectPattern)!;
  const inside = lanes.filter((lane) => lane.group === group.id);
  const muted = inside.every(({ mute }) => mute);
  return (
    <div className="group-row" role="group" aria-label={group.name}>
      <button
        type="button"
        aria-expanded={!group.folded}
        onClick={() =>
          act(
            beatEdited({
              edit: { edit: 'setGroup', args: { groupId: group.id, change: { folded: !group.folded } } },
            }),
          )
        }
      >
        <Icon name={group.folded ? 'right' : 'down'} size={16} />
        {group.folded ? `${group.name}, ${count(inside.length, 'lane')}` : group.name}
      </button>
      <button
        type="button"
        aria-label={words.chooseAllHitsOfGroup(group.name)}
        onClick={() => {
          act(laneOpened(inside[0]?.id ?? null));
          act(drawerTurned('hits'));
          act(hitsSelected({ spots: inside.flatMap(({ id }) => spotsOf(pattern, id)) }));
        }}
      >
        {words.chooseAll}
      </button>
      <button
        type="button"
        aria-label={words.muteGroup(group.name)}
        aria-pressed={muted}
        onClick={() =>
          act(
            beatEdited({
              edit: { edit: 'setGroupLanes', args: { groupId: group.id, change: { mute: !muted } } },
            }),
          )
        }
      >
        {muted ? words.muted : words.mute}
      </button>
    </div>
  );
};
