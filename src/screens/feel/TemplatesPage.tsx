import { CheckBox } from '../../ui/CheckBox';
import { Item, Chips, Group, Items } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { isMidi } from '../../../core/midi/read/chunks';
import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import { DRUM_GROUPS, type DrumGroup } from '../../../core/document/choices';
import { GROUP_NAMES } from '../../../core/document/drumGroups';
import type { Slot, Template } from '../../../core/document/feelSchema';
import type { Beat, Lane, Pattern } from '../../../core/document/schema';
import { numbered } from '../../../core/document/numbered';
import { fileName } from '../../../core/document/text';
import { averaged } from '../../../core/analysis/extractTemplate';
import { TEMPLATES } from '../../../core/feel/templates';
import { writeTemplate } from '../../../core/feel/templateText';
import { templateMidi } from '../../../core/midi/convert/templateMidi';
import { patternPerformance } from '../../../core/analysis/patternPerformance';
import { beatEdited } from '../../store/doc';
import { noticed } from '../../store/slices';
import { useDo } from '../../store/store';
import { saveBytes, saveText } from '../../ui/files';
import { Chip } from '../../ui/Chip';
import { FilePick } from '../../web/FilePick';
import { editShownFeel } from './edit';
import { SlotEditor } from '../../strings/SlotEditor';
import { TakeTemplate } from './TakeTemplate';
import { TemplatePicture } from '../../strings/TemplatePicture';
import { readAside } from '../../workers/aside';
import { madeOf, templateSourceOf, type TemplateSource } from './templates';
import { words } from '../../words/feel';

/** Humanize and chance even out over so many passes. */
const PASSES = 4;

const follow = (template: Template) => editShownFeel({ edit: 'setTemplate', args: { change: { template } } });

interface SlotsProps {
  template: Template;
  onChange: (template: Template, gesture?: string) => void;
}

/** The slots of a template: the common ones, or a group's curve of its own. */
const Slots = ({ template, onChange }: SlotsProps) => {
  const [group, setGroup] = useState<DrumGroup | null>(null);
  const { groups = {} } = template;
  const own = group ? groups[group] : undefined;
  const change = (slots: Slot[], gesture?: string) =>
    onChange(
      group ? { ...template, groups: { ...groups, [group]: slots } } : { ...template, slots },
      gesture,
    );
  const takeAway = () => {
    const { [group!]: _, ...left } = groups;
    const { groups: __, ...rest } = template;
    onChange(Object.keys(left).length ? { ...rest, groups: left } : rest);
  };
  return (
    <>
      <Chips label={words.curveOf(template.name)}>
        <Chip pressed={group === null} onPress={() => setGroup(null)}>
          {words.allDrums}
        </Chip>
        {DRUM_GROUPS.map((one) => (
          <Chip key={one} pressed={group === one} onPress={() => setGroup(one)}>
            {groups[one] ? words.hasCurve(GROUP_NAMES[one]) : GROUP_NAMES[one]}
          </Chip>
        ))}
      </Chips>
      {group && !own ? <Para quiet>{words.noCurveYet(GROUP_NAMES[group])}</Para> : null}
      <SlotEditor template={{ ...template, slots: own ?? template.slots }} onChange={change} />
      {own ? <Chip onPress={takeAway}>{words.takeCurveAway(GROUP_NAMES[group!])}</Chip> : null}
    </>
  );
};

interface OwnProps {
  template: Template;
  chosen: boolean;
  onChoose: (on: boolean) => void;
}

const Own = ({ template, chosen, onChoose }: OwnProps) => {
  const act = useDo();
  const [editing, setEditing] = useState(false);
  const { id, name } = template;
  const keep = (next: Template, gesture?: string) =>
    act(
      beatEdited({ edit: { edit: 'keepTemplate', args: { template: next } }, ...(gesture && { gesture }) }),
    );
  return (
    <Item ruled>
      <CheckBox label={words.chooseNameToBeAveraged(name)} checked={chosen} onChange={onChoose}>
        {name}
      </CheckBox>
      <Words small quiet>
        {madeOf(template)}
      </Words>
      {editing ? <Slots template={template} onChange={keep} /> : <TemplatePicture shape={template} />}
      <Chips>
        <Chip label={words.useName(name)} onPress={() => follow(template)}>
          {words.use}
        </Chip>
        <Chip label={words.editName(name)} pressed={editing} onPress={() => setEditing(!editing)}>
          {words.edit}
        </Chip>
        <Chip
          label={words.saveNameAsAFile(name)}
          onPress={() => saveText(writeTemplate(template), `${fileName(name)}.template.json`)}
        >
          {words.saveJson}
        </Chip>
        <Chip
          label={words.saveNameAsAMidi(name)}
          onPress={() => saveBytes(templateMidi(template), `${fileName(name)}.mid`, 'audio/midi')}
        >
          {words.saveMid}
        </Chip>
        <Chip
          label={words.dropName(name)}
          onPress={() => {
            act(beatEdited({ edit: { edit: 'dropTemplate', args: { id } } }));
            act(
              noticed({
                text: words.theTemplateNameWasDropped(name),
                subject: 'template',
              }),
            );
          }}
        >
          {words.drop}
        </Chip>
      </Chips>
    </Item>
  );
};

const Shipped = ({ template }: { template: Template }) => {
  const act = useDo();
  const { name } = template;
  const copyName = numbered(
    name,
    TEMPLATES.map((one) => one.name),
  );
  return (
    <Item ruled>
      <Words bold>{name}</Words>
      <Words small quiet>
        {madeOf(template)}
      </Words>
      <Para quiet>{template.about}</Para>
      <TemplatePicture shape={template} />
      <Chips>
        <Chip label={words.useName(name)} onPress={() => follow(template)}>
          {words.use}
        </Chip>
        <Chip
          label={words.copyToEditItName(name)}
          onPress={() => {
            act(
              beatEdited({
                edit: {
                  edit: 'keepTemplate',
                  args: { template: { ...template, id: nanoid(), name: copyName } },
                },
              }),
            );
            act(
              noticed({
                text: words.copyNameIsOneOfThisBeats(copyName),
                subject: 'template',
              }),
            );
          }}
        >
          {words.copyToEdit}
        </Chip>
      </Chips>
    </Item>
  );
};

interface TemplatesPageProps {
  beat: Beat;
  pattern: Pattern;
  lane: Lane | undefined;
  /** A file that was dropped on the screen. */
  dropped: { name: string; bytes: Uint8Array } | null;
}

/** Templates: taken, opened, edited, averaged, and those that ship. */
export const TemplatesPage = ({ beat, pattern, lane, dropped }: TemplatesPageProps) => {
  const act = useDo();
  const [source, setSource] = useState<TemplateSource | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const say = (text: string) => act(noticed({ text, tone: 'danger', subject: 'template' }));

  const take = async (name: string, bytes: Uint8Array) => {
    const read = await templateSourceOf(name, bytes);
    if (read.ok) setSource(read.value);
    else say(read.error);
  };
  const open = async (name: string, bytes: Uint8Array) => {
    const read = await readAside('openTemplate', name, bytes);
    if (!read.ok) return say(read.error);
    const { about, ...shape } = read.value;
    const template = { ...shape, id: nanoid(), ...(about && { about }) };
    act(beatEdited({ edit: { edit: 'keepTemplate', args: { template } } }));
    act(
      noticed({
        text: words.theTemplateShapeWasOpened(shape.name),
        subject: 'template',
      }),
    );
  };
  useEffect(() => {
    if (!dropped || !isMidi(dropped.bytes)) return;
    let current = true;
    void templateSourceOf(dropped.name, dropped.bytes).then((read) => {
      if (current && read.ok) setSource(read.value);
    });
    return () => {
      current = false;
    };
  }, [dropped]);
  const fromPattern = (only: Lane | undefined) => {
    const performance = patternPerformance(beat, pattern, PASSES);
    const notes = performance.notes.filter((note) => !only || note.lane === only.id);
    const name = only ? words.onlyOfPattern2(only.name, pattern.name) : pattern.name;
    if (notes.length) setSource({ name, performance: { ...performance, notes } });
    else say(words.nothingOfNameSoundsSo(name));
  };
  const average = () => {
    const some = beat.templates.filter(({ id }) => chosen.has(id));
    const shape = averaged(words.meanOfMany(some.length), some);
    if (!shape) return;
    act(beatEdited({ edit: { edit: 'keepTemplate', args: { template: { ...shape, id: nanoid() } } } }));
    const left = some.filter(
      ({ grid, slots }) => grid !== shape.grid || slots.length !== shape.slots.length,
    ).length;
    act(
      noticed({
        text: left
          ? words.manyTemplatesWereAveragedLeft(some.length - left, left)
          : words.manyTemplatesWereAveragedInto(some.length),
        subject: 'template',
      }),
    );
  };

  if (source)
    return <TakeTemplate key={source.name} beat={beat} source={source} onDone={() => setSource(null)} />;
  return (
    <>
      <Group title={words.takeATemplate}>
        <Chips>
          <FilePick
            label={words.takeATemplateFromA}
            accept=".mid,.midi"
            onFile={(name, bytes) => void take(name, bytes)}
          >
            {words.fromAMidiFile}
          </FilePick>
          <Chip onPress={() => fromPattern(undefined)}>{words.fromPattern(pattern.name)}</Chip>
          {lane ? <Chip onPress={() => fromPattern(lane)}>{words.fromLaneAlone(lane.name)}</Chip> : null}
          <FilePick
            label={words.openTemplates}
            accept=".json,.mid,.midi"
            multiple
            onFile={(name, bytes) => void open(name, bytes)}
          >
            {words.openTemplateFiles}
          </FilePick>
        </Chips>
        <Para quiet>{words.aMidiFileCanAlso}</Para>
      </Group>
      <Group title={words.templatesOfThisBeat}>
        {beat.templates.length ? (
          <Items>
            {beat.templates.map((template) => (
              <Own
                key={template.id}
                template={template}
                chosen={chosen.has(template.id)}
                onChoose={(on) => {
                  const next = new Set(chosen);
                  if (on) next.add(template.id);
                  else next.delete(template.id);
                  setChosen(next);
                }}
              />
            ))}
          </Items>
        ) : (
          <Para quiet>{words.noneYetTakeOneFrom}</Para>
        )}
        {beat.templates.length > 1 ? (
          <Chip disabled={chosen.size < 2} onPress={average}>
            {chosen.size < 2 ? words.chooseTwoOrMoreTo : words.averageSizeIntoOne(chosen.size)}
          </Chip>
        ) : null}
      </Group>
      <Group title={words.templatesOfTheLibrary}>
        <Items>
          {TEMPLATES.map((template) => (
            <Shipped key={template.id} template={template} />
          ))}
        </Items>
      </Group>
    </>
  );
};
