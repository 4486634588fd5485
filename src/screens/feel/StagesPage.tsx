import { Switch } from '../../ui/Switch';
import { Press } from '../../ui/Press';
import { Words, Para } from '../../ui/Words';
import { View } from 'react-native';
import { styles } from './styles';
import { memo, useCallback, useEffect, useRef, useState, type ReactNode } from 'react';
import { STAGES, type Stage } from '../../../core/document/choices';
import type { Feel } from '../../../core/document/feelSchema';
import type { Beat, Lane } from '../../../core/document/schema';
import { beatEdited } from '../../store/doc';
import { hintDone } from '../../store/look';
import { useApp, useDo, useAppStore } from '../../store/store';
import { Hint } from '../../ui/Hint';
import { Chip } from '../../ui/Chip';
import { Icon } from '../../ui/Icon';
import { editShownFeel } from './edit';
import { AheadStage } from './stages/AheadStage';
import { BaseStage } from './stages/BaseStage';
import { DynamicsStage } from './stages/DynamicsStage';
import { HumanizeStage } from './stages/HumanizeStage';
import { QuantizeStage } from './stages/QuantizeStage';
import { StaggerStage } from './stages/StaggerStage';
import { percent } from '../../ui/figures';
import { STAGE_NAMES, stageText } from './stageText';
import { words } from '../../words/feel';

interface RowProps {
  stage: Stage;
  /** What it does now. */
  text: string;
  /** Whether it is passed by. */
  off: boolean;
  open: boolean;
  onOpen: (stage: Stage) => void;
  children: ReactNode;
}

/** Made anew only where something of its own changes: a control of one stage is turned while the others stand still. */
const StageRow = memo(({ stage, text, off, open, onOpen, children }: RowProps) => {
  const name = STAGE_NAMES[stage];
  const section = useRef<HTMLElement>(null);
  const before = useRef(open);
  // The one opened before has closed above it: it is brought to where its controls can be seen.
  useEffect(() => {
    if (open && !before.current) section.current?.scrollIntoView?.({ block: 'start' });
    before.current = open;
  }, [open]);
  return (
    <View ref={section as never} {...({ role: 'region', 'aria-label': name } as object)} style={styles.stage}>
      <View style={styles.stageHead}>
        <Press style={styles.stageName} expanded={open} onPress={() => onOpen(stage)}>
          <Icon name={open ? 'down' : 'right'} size={18} />
          <View style={styles.stageWords}>
            <Words bold style={off && styles.passed}>
              {name}
            </Words>
            <Words small quiet>
              {text}
            </Words>
          </View>
        </Press>
        <Switch
          label={words.nameTakesPart(name)}
          value={!off}
          onChange={(on) => editShownFeel({ edit: 'passBy', args: { stage, off: !on } })}
        />
      </View>
      {open ? <View style={styles.stageBody}>{children}</View> : null}
    </View>
  );
});
StageRow.displayName = 'StageRow';

const controls = (stage: Stage, feel: Feel, beat: Beat, lane: Lane | undefined): ReactNode => {
  switch (stage) {
    case 'quantize':
      return <QuantizeStage quantize={feel.quantize} lanes={beat.lanes} />;
    case 'base':
      return <BaseStage feel={feel} lane={lane} lanes={beat.lanes} templates={beat.templates} />;
    case 'stagger':
      return <StaggerStage stagger={feel.stagger} lanes={beat.lanes} />;
    case 'ahead':
      return <AheadStage feel={feel} lanes={beat.lanes} />;
    case 'dynamics':
      return <DynamicsStage feel={feel} lanes={beat.lanes} />;
    case 'humanize':
      return <HumanizeStage feel={feel} lane={lane} />;
  }
};

interface StagesPageProps {
  beat: Beat;
  patternId: string;
  feel: Feel;
  /** The open lane. */
  lane: Lane | undefined;
}

/** The stages in their order: each with a switch, one line that says what it does, and its controls. */
export const StagesPage = ({ beat, patternId, feel, lane }: StagesPageProps) => {
  const store = useAppStore();
  const [open, setOpen] = useState<Stage | null>('base');
  const turn = useCallback((stage: Stage) => setOpen((now) => (now === stage ? null : stage)), []);
  const act = useDo();
  const { blend } = feel;
  const hinted = useApp(({ look }) => look.hintsDone.includes('compare'));
  const compared = useApp(({ comparing }) => comparing.compare !== null);
  useEffect(() => {
    if (compared) store.dispatch(hintDone('compare'));
  }, [compared, store]);
  return (
    <>
      {hinted ? null : (
        <Hint onDone={() => store.dispatch(hintDone('compare'))}>{words.holdCOrTheButton}</Hint>
      )}
      {blend ? (
        <View>
          <Para note>
            {words.youHearABlend(percent(1 - blend.amount), percent(blend.amount), blend.name)}
          </Para>
          <Chip
            onPress={() => act(beatEdited({ edit: { edit: 'setBlend', args: { patternId, blend: null } } }))}
          >
            {words.onlyThisFeel}
          </Chip>
        </View>
      ) : null}
      {STAGES.map((stage) => (
        <StageRow
          key={stage}
          stage={stage}
          text={stageText(stage, feel, beat.lanes)}
          off={feel.off.includes(stage)}
          open={open === stage}
          onOpen={turn}
        >
          {open === stage ? controls(stage, feel, beat, lane) : null}
        </StageRow>
      ))}
    </>
  );
};
