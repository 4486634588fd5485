import { CheckBox } from '../../ui/CheckBox';
import { Item, Chips, Group, Items } from '../../ui/Layout';
import { Words, Para } from '../../ui/Words';
import { isMidi } from '../../../core/midi/chunks';
import { nanoid } from '@reduxjs/toolkit';
import { useEffect, useState } from 'react';
import type { Template } from '../../../core/beat/feelSchema';
import type { Beat, Lane, Pattern } from '../../../core/beat/schema';
import { numbered } from '../../../core/beat/numbered';
import { fileName } from '../../../core/beat/text';
import { averaged } from '../../../core/feel/takeTemplate';
import { TEMPLATES } from '../../../core/feel/templates';
import { writeTemplate } from '../../../core/feel/templateText';
import { templateMidi } from '../../../core/midi/templateMidi';
import { patternPerformance } from '../../../core/play/performance';
import { beatEdited } from '../../state/doc';
import { noticed } from '../../state/slices';
import { useDo } from '../../state/store';
import { saveBytes, saveText } from '../../ui/files';
import { Chip } from '../../ui/Chip';
import { FilePick } from '../../web/FilePick';
import { editShownFeel } from './edit';
import { SlotEditor } from '../../strings/SlotEditor';
import { TakeTemplate } from './TakeTemplate';
import { TemplatePicture } from '../../strings/TemplatePicture';
import { readAside } from '../../workers/aside';
import { madeOf, sourceOf, type Source } from './templates';

/** Humanize and chance even out over so many passes. */
const PASSES = 4;

const follow = (template: Template) => editShownFeel({ edit: 'setTemplate', args: { change: { template } } });

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
      <CheckBox label={`Choose ${name} to be averaged`} checked={chosen} onChange={onChoose}>
        {name}
      </CheckBox>
      <Words small quiet>
        {madeOf(template)}
      </Words>
      {editing ? (
        <SlotEditor
          template={template}
          onChange={(slots, gesture) => keep({ ...template, slots }, gesture)}
        />
      ) : (
        <TemplatePicture shape={template} />
      )}
      <Chips>
        <Chip label={`Use ${name}`} onPress={() => follow(template)}>
          Use
        </Chip>
        <Chip label={`Edit ${name}`} pressed={editing} onPress={() => setEditing(!editing)}>
          Edit
        </Chip>
        <Chip
          label={`Save ${name} as a file`}
          onPress={() => saveText(writeTemplate(template), `${fileName(name)}.template.json`)}
        >
          Save .json
        </Chip>
        <Chip
          label={`Save ${name} as a MIDI file`}
          onPress={() => saveBytes(templateMidi(template), `${fileName(name)}.mid`, 'audio/midi')}
        >
          Save .mid
        </Chip>
        <Chip
          label={`Drop ${name}`}
          onPress={() => {
            act(beatEdited({ edit: { edit: 'dropTemplate', args: { id } } }));
            act(
              noticed({
                text: `The template “${name}” was dropped. Undo brings it back.`,
                subject: 'template',
              }),
            );
          }}
        >
          Drop
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
        <Chip label={`Use ${name}`} onPress={() => follow(template)}>
          Use
        </Chip>
        <Chip
          label={`Copy to edit it: ${name}`}
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
                text: `“${copyName}” stands among this beat’s templates now, to be edited.`,
                subject: 'template',
              }),
            );
          }}
        >
          Copy to edit
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
  const [source, setSource] = useState<Source | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const say = (text: string) => act(noticed({ text, tone: 'danger', subject: 'template' }));

  const take = async (name: string, bytes: Uint8Array) => {
    const read = await sourceOf(name, bytes);
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
        text: `The template “${shape.name}” was opened and kept with this beat.`,
        subject: 'template',
      }),
    );
  };
  useEffect(() => {
    if (!dropped || !isMidi(dropped.bytes)) return;
    let current = true;
    void sourceOf(dropped.name, dropped.bytes).then((read) => {
      if (current && read.ok) setSource(read.value);
    });
    return () => {
      current = false;
    };
  }, [dropped]);
  const fromPattern = (only: Lane | undefined) => {
    const performance = patternPerformance(beat, pattern, PASSES);
    const notes = performance.notes.filter((note) => !only || note.lane === only.id);
    const name = only ? `${only.name} of ${pattern.name}` : pattern.name;
    if (notes.length) setSource({ name, performance: { ...performance, notes } });
    else say(`Nothing of ${name} sounds, so no template can be taken from it.`);
  };
  const average = () => {
    const some = beat.templates.filter(({ id }) => chosen.has(id));
    const shape = averaged(`Mean of ${some.length}`, some);
    if (!shape) return;
    act(beatEdited({ edit: { edit: 'keepTemplate', args: { template: { ...shape, id: nanoid() } } } }));
    const left = some.filter(
      ({ grid, slots }) => grid !== shape.grid || slots.length !== shape.slots.length,
    ).length;
    act(
      noticed({
        text: left
          ? `${some.length - left} templates were averaged; ${left} of another grid or length were left out.`
          : `${some.length} templates were averaged into one.`,
        subject: 'template',
      }),
    );
  };

  if (source)
    return <TakeTemplate key={source.name} beat={beat} source={source} onDone={() => setSource(null)} />;
  return (
    <>
      <Group title="Take a template">
        <Chips>
          <FilePick
            label="Take a template from a MIDI file"
            accept=".mid,.midi"
            onFile={(name, bytes) => void take(name, bytes)}
          >
            From a MIDI file
          </FilePick>
          <Chip onPress={() => fromPattern(undefined)}>{`From ${pattern.name}`}</Chip>
          {lane ? <Chip onPress={() => fromPattern(lane)}>{`From ${lane.name} alone`}</Chip> : null}
          <FilePick
            label="Open templates"
            accept=".json,.mid,.midi"
            multiple
            onFile={(name, bytes) => void open(name, bytes)}
          >
            Open template files
          </FilePick>
        </Chips>
        <Para quiet>A MIDI file can also be dropped anywhere on this screen.</Para>
      </Group>
      <Group title="Templates of this beat">
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
          <Para quiet>None yet: take one from something that was played.</Para>
        )}
        {beat.templates.length > 1 ? (
          <Chip disabled={chosen.size < 2} onPress={average}>
            {chosen.size < 2 ? 'Choose two or more to average them' : `Average ${chosen.size} into one`}
          </Chip>
        ) : null}
      </Group>
      <Group title="Templates of the library">
        <Items>
          {TEMPLATES.map((template) => (
            <Shipped key={template.id} template={template} />
          ))}
        </Items>
      </Group>
    </>
  );
};
