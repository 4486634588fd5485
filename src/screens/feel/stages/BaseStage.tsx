import { Figure } from '../../../ui/Figure';
import { Para } from '../../../ui/Words';
import { Chips, Group } from '../../../ui/Layout';
import { BASES, SWING, type Base } from '../../../../core/document/choices';
import type { Feel, Follow, Swing, Template } from '../../../../core/document/feelSchema';
import { drumGroupOf, GROUP_NAMES } from '../../../../core/document/drumGroups';
import type { Lane } from '../../../../core/document/schema';
import { swingDelay, swingName, swingPercentAt, swingRatio, SWING_MARKS } from '../../../../core/feel/swing';
import type { SwingChange } from '../../../../core/edit/swing';
import { meterText } from '../../../../core/document/meter';
import { meterOfShape } from '../../../../core/feel/templateMeter';
import { TEMPLATES } from '../../../../core/feel/templates';
import { ticksPerMs } from '../../../../core/units';
import { selectBeat, useApp } from '../../../store/store';
import { Chip } from '../../../ui/Chip';
import { Choice } from '../../../ui/Choice';
import { Range } from '../../../ui/Range';
import { TemplatePicture } from '../../../strings/TemplatePicture';
import { editShownFeel } from '../edit';
import { figure } from '../../../ui/figures';
import { gridText } from '../stageText';
import { words } from '../../../words/feel';

const BASE_NAMES: Record<Base, string> = {
  straight: words.straight,
  swing: words.swing,
  template: words.template,
};
const SWING_GRIDS = ['1/16', '1/8'] as const;

/** Percent, ratio, delay at this tempo, and the name that people have for it. */
const swingFigures = (swing: Swing, tempo: number): string => {
  const percentNow = swingPercentAt(swing, tempo);
  const delay = Math.round(swingDelay({ ...swing, percent: percentNow }) / ticksPerMs(tempo));
  const where = delay ? words.delayMs(Math.abs(delay), delay) : words.onTheGrid;
  const at =
    swing.withTempo === undefined ? '' : words.atTempoBpmPercentNow(figure(tempo), figure(percentNow));
  return words.atSwingSwingRatioTo1(at, swingName(percentNow), swingRatio(percentNow).toFixed(2), where);
};

interface SwingControlsProps {
  name: string;
  swing: Swing;
  onChange: (change: SwingChange, gesture?: string) => void;
}

const SwingControls = ({ name, swing, onChange }: SwingControlsProps) => {
  const tempo = useApp((state) => selectBeat(state)?.tempo ?? 100);
  return (
    <>
      <Range
        label={name}
        short={words.swing}
        value={swingPercentAt(swing, tempo)}
        {...SWING}
        step={0.25}
        shown={`${figure(swingPercentAt(swing, tempo))} %`}
        onChange={(value, gesture) => onChange({ percent: value }, gesture)}
      />
      <Para quiet live>
        {swingFigures(swing, tempo)}
      </Para>
      <Chips>
        {SWING_MARKS.map((mark) => (
          <Chip
            key={mark.name}
            label={`${name}: ${mark.name}`}
            pressed={swing.withTempo === undefined && Math.abs(swing.percent - mark.percent) < 0.01}
            onPress={() => onChange({ percent: mark.percent })}
          >
            {mark.name}
          </Chip>
        ))}
      </Chips>
      <Chips>
        {SWING_GRIDS.map((grid) => (
          <Chip
            key={grid}
            label={words.nameOnGrid(name, gridText(grid))}
            pressed={swing.grid === grid}
            onPress={() => onChange({ grid })}
          >
            {gridText(grid)}
          </Chip>
        ))}
        <Chip
          label={words.nameWithTheTempo(name)}
          pressed={swing.withTempo !== undefined}
          onPress={() => onChange({ withTempo: swing.withTempo === undefined ? 1 : null })}
        >
          {words.withTheTempo}
        </Chip>
      </Chips>
      {swing.withTempo === undefined ? null : (
        <Figure
          of="share"
          label={words.nameAmountWithTheTempo(name)}
          short={words.amount}
          value={swing.withTempo}
          onChange={(withTempo, gesture) => onChange({ withTempo }, gesture)}
        />
      )}
    </>
  );
};

interface TemplateControlsProps {
  name: string;
  follow: Follow;
  templates: Template[];
  onChange: (change: Partial<Follow>, gesture?: string) => void;
}

const TemplateControls = ({ name, follow, templates, onChange }: TemplateControlsProps) => {
  const { template, timing, velocity } = follow;
  const all = [...templates, ...TEMPLATES];
  const known = template && !all.some(({ id }) => id === template.id) ? [template, ...all] : all;
  return (
    <>
      <Choice
        label={name}
        short={words.template}
        value={template?.id ?? ''}
        options={[
          ...(template ? [] : [{ value: '', name: words.chooseOne }]),
          ...known.map((one) => ({ value: one.id, name: `${one.name}, ${meterText(meterOfShape(one))}` })),
        ]}
        onChange={(id) => onChange({ template: known.find((one) => one.id === id) ?? null })}
      />
      {template ? (
        <>
          <TemplatePicture shape={template} timing={timing} />
          {template.about ? <Para quiet>{template.about}</Para> : null}
        </>
      ) : null}
      <Figure
        of="amount"
        label={words.nameTiming(name)}
        short={words.timing}
        value={timing}
        onChange={(value, gesture) => onChange({ timing: value }, gesture)}
      />
      <Figure
        of="amount"
        label={words.nameVelocity(name)}
        short={words.velocity}
        value={velocity}
        onChange={(value, gesture) => onChange({ velocity: value }, gesture)}
      />
    </>
  );
};

type OwnBase = Base | 'all';

interface OwnBaseProps {
  feel: Feel;
  lane: Lane;
  lanes: Lane[];
  templates: Template[];
}

/** A base of its own for one lane, or for all of its group of drums. */
const OwnBaseOf = ({ feel, lane, lanes, templates }: OwnBaseProps) => {
  const group = drumGroupOf(lane.instrument);
  const alike = lanes.filter(({ instrument }) => drumGroupOf(instrument) === group);
  const own = feel.lanes[lane.id] ?? {};
  const set = (base: OwnBase) => {
    const change = base === 'all' ? { base: undefined, swing: undefined, template: undefined } : { base };
    if (base === 'swing') editShownFeel({ edit: 'setLaneSwing', args: { laneId: lane.id, change: {} } });
    else editShownFeel({ edit: 'setLanes', args: { laneIds: [lane.id], change } });
  };
  return (
    <Group title={words.baseOfLane(lane.name)}>
      <Choice<OwnBase>
        label={words.baseFeelOfLane(lane.name)}
        short={words.follows}
        value={own.base ?? 'all'}
        options={[
          { value: 'all', name: words.whatAllLanesFollow },
          ...BASES.map((base) => ({
            value: base,
            name: words.itsOwnBaseName(BASE_NAMES[base].toLowerCase()),
          })),
        ]}
        onChange={set}
      />
      {own.base === 'swing' ? (
        <SwingControls
          name={words.swingOfLane(lane.name)}
          swing={own.swing ?? feel.swing}
          onChange={(change, gesture) =>
            editShownFeel({ edit: 'setLaneSwing', args: { laneId: lane.id, change } }, gesture)
          }
        />
      ) : null}
      {own.base === 'template' ? (
        <TemplateControls
          name={words.templateOfLane(lane.name)}
          follow={own.template ?? feel.template}
          templates={templates}
          onChange={(change, gesture) =>
            editShownFeel({ edit: 'setLaneTemplate', args: { laneIds: [lane.id], change } }, gesture)
          }
        />
      ) : null}
      {alike.length > 1 ? (
        <Chip
          onPress={() =>
            editShownFeel({
              edit: 'setLanes',
              args: {
                laneIds: alike.map(({ id }) => id),
                change: { base: own.base, swing: own.swing, template: own.template },
              },
            })
          }
        >
          {words.theSameForAllGroup(GROUP_NAMES[group])}
        </Chip>
      ) : null}
    </Group>
  );
};

interface BaseStageProps {
  feel: Feel;
  lane: Lane | undefined;
  lanes: Lane[];
  templates: Template[];
}

/** What all hits follow: nothing, a swing, or a template. */
export const BaseStage = ({ feel, lane, lanes, templates }: BaseStageProps) => (
  <>
    <Chips label={words.baseFeel}>
      {BASES.map((base) => (
        <Chip
          key={base}
          pressed={feel.base === base}
          onPress={() => editShownFeel({ edit: 'setBase', args: { base } })}
        >
          {BASE_NAMES[base]}
        </Chip>
      ))}
    </Chips>
    {feel.base === 'swing' ? (
      <SwingControls
        name={words.swingOfAllLanes}
        swing={feel.swing}
        onChange={(change, gesture) => editShownFeel({ edit: 'setSwing', args: { change } }, gesture)}
      />
    ) : null}
    {feel.base === 'template' ? (
      <TemplateControls
        name={words.templateOfAllLanes}
        follow={feel.template}
        templates={templates}
        onChange={(change, gesture) => editShownFeel({ edit: 'setTemplate', args: { change } }, gesture)}
      />
    ) : null}
    {lane ? (
      <OwnBaseOf key={lane.id} feel={feel} lane={lane} lanes={lanes} templates={templates} />
    ) : (
      <Para quiet>{words.pressALanesNameAbove}</Para>
    )}
  </>
);
