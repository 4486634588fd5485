import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Action } from '../../ui/Action';
import { Badge } from '../../ui/Badge';
import { Button } from '../../ui/Button';
import { Card } from '../../ui/Card';
import { CheckBox } from '../../ui/CheckBox';
import { Chip } from '../../ui/Chip';
import { Choice } from '../../ui/Choice';
import { Dialog } from '../../ui/Dialog';
import { Disclosure } from '../../ui/Disclosure';
import { Divider } from '../../ui/Divider';
import { Hold } from '../../ui/Hold';
import { Icon } from '../../ui/Icon';
import { IconButton } from '../../ui/IconButton';
import { Chips, Figures, Group, Item, Items, ScreenHead } from '../../ui/Layout';
import { NameField } from '../../ui/NameField';
import { NameInput } from '../../ui/NameInput';
import { Notice } from '../../ui/Notice';
import { NumberField } from '../../ui/NumberField';
import { Page } from '../../ui/Page';
import { Pick } from '../../ui/Pick';
import { Progress } from '../../ui/Progress';
import { Radios } from '../../ui/Radios';
import { Range } from '../../ui/Range';
import { SearchField } from '../../ui/SearchField';
import { Setting } from '../../ui/Setting';
import { Sheet } from '../../ui/Sheet';
import { Skeleton } from '../../ui/Skeleton';
import { Switch } from '../../ui/Switch';
import { Table } from '../../ui/Table';
import { Tabs, tabId } from '../../ui/Tabs';
import { TextField } from '../../ui/TextField';
import { Hidden, Para, Words } from '../../ui/Words';

const styles = StyleSheet.create({
  page: { maxWidth: 720, gap: 8 },
  head: { paddingLeft: 16 },
  row: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center', gap: 8 },
});

const TABS = [
  { id: 'hits', name: 'Hits' },
  { id: 'lane', name: 'Lane' },
  { id: 'sound', name: 'Sound' },
] as const;

const BOATS = [
  { value: 'ferry', name: 'Ferry' },
  { value: 'tug', name: 'Tug' },
] as const;

const nothing = () => undefined;

/** A part with what it remembers. */
const With = <T,>({
  first,
  children,
}: {
  first: T;
  children: (now: T, set: (to: T) => void) => ReactNode;
}) => {
  const [now, set] = useState(first);
  return children(now, set);
};

const Buttons = () => (
  <Group title="Buttons">
    <View style={styles.row}>
      <Button kind="filled" onPress={nothing}>
        Filled
      </Button>
      <Button kind="outline" onPress={nothing}>
        Outline
      </Button>
      <Button onPress={nothing}>Clear</Button>
      <Button kind="outline" tone="danger" onPress={nothing}>
        Danger
      </Button>
      <Button kind="outline" disabled onPress={nothing}>
        Not now
      </Button>
      <Action label="With an icon" kind="outline" icon={<Icon name="download" />} onPress={nothing} />
      <With first={false}>
        {(on, set) => <IconButton label="Metronome" icon="metronome" pressed={on} onPress={() => set(!on)} />}
      </With>
      <IconButton label="Undo" icon="undo" disabled onPress={nothing} />
    </View>
    <Chips label="Chips">
      <With first={true}>
        {(on, set) => (
          <Chip pressed={on} onPress={() => set(!on)}>
            Pressed or not
          </Chip>
        )}
      </With>
      <Chip onPress={nothing}>Plain</Chip>
      <Chip tone="danger" onPress={nothing}>
        Delete
      </Chip>
      <Chip disabled onPress={nothing}>
        Not now
      </Chip>
      <Chip onPress={nothing}>A chip whose words are so long that on a phone they are set in two lines</Chip>
    </Chips>
    <With first={false}>
      {(held, set) => (
        <Hold held={held} onHold={set}>
          Hold to hear it
        </Hold>
      )}
    </With>
  </Group>
);

const Choices = () => (
  <Group title="Choices">
    <With first={true}>{(on, set) => <Switch label="Rain" value={on} onChange={set} />}</With>
    <With first={false}>
      {(on, set) => (
        <CheckBox checked={on} onChange={set}>
          Keep flams together
        </CheckBox>
      )}
    </With>
    <CheckBox checked disabled onChange={nothing}>
      Always so
    </CheckBox>
    <With first="ferry">
      {(boat, set) => <Radios label="Boat" value={boat} options={BOATS} onChange={set} />}
    </With>
    <With first="tug">
      {(boat, set) => (
        <Choice label="Boat for the song" short="Boat" value={boat} options={BOATS} onChange={set} />
      )}
    </With>
    <With first="ferry">
      {(boat, set) => <Pick label="Boat shown" value={boat} options={BOATS} onChange={set} />}
    </With>
    <Setting title="Tide" about="How high the water stands">
      <NumberField label="Tide" value={3} least={0} most={9} under="feet" width={72} onChange={nothing} />
    </Setting>
  </Group>
);

const Fields = () => (
  <Group title="Figures and words">
    <With first={58}>
      {(swing, set) => (
        <Range
          label="Swing of the kit"
          short="Swing"
          value={swing}
          least={50}
          most={75}
          step={1}
          shown={`${swing} %`}
          onChange={set}
        />
      )}
    </With>
    <Figures label="Figures">
      <With first={92}>
        {(tempo, set) => (
          <NumberField
            label="Tempo of the tide"
            value={tempo}
            least={20}
            most={300}
            under="BPM"
            width={72}
            onChange={set}
          />
        )}
      </With>
    </Figures>
    <With first="Lantern Walk">
      {(name, set) => <NameInput label="Name of the beat" value={name} onName={set} />}
    </With>
    <With first="">
      {(text, set) => (
        <TextField label="A line of words" placeholder="A line of words" value={text} onType={set} />
      )}
    </With>
    <With first="">
      {(text, set) => (
        <SearchField label="Search the stalls" placeholder="Search the stalls" value={text} onType={set} />
      )}
    </With>
    <NameField label="Name to keep" action="Keep" onGive={nothing} />
  </Group>
);

const Told = () => (
  <Group title="What is told">
    <Para>Sentences of their own, as they are set on a page.</Para>
    <Para quiet>Beside the point, and paler.</Para>
    <Para danger>Something that went wrong, in a sentence.</Para>
    <Words figure>1.2.3</Words>
    <Hidden>Only heard.</Hidden>
    <Notice text="Pattern B was deleted." onDismiss={nothing}>
      <Action label="Bring it back" kind="outline" onPress={nothing} />
    </Notice>
    <Progress label="Files read" done={0.4} />
    <View style={styles.row}>
      <Badge>open</Badge>
      <Badge tone="danger">3</Badge>
    </View>
    <Divider />
    <Skeleton label="Looking for grooves" rows={2} />
    <Card label="What will be written">
      <Words>Two bars, 71 notes.</Words>
    </Card>
    <Table
      label="Lanes"
      columns={['Lane', 'Notes', 'Stands']}
      figures={[0]}
      rows={[
        { key: 'kick', name: 'Kick', cells: ['10', 'on the grid'] },
        { key: 'snare', name: 'Snare', cells: ['8', '22 ms behind'] },
      ]}
    />
    <Items label="Stalls">
      <Item ruled>
        <Words>Noodles</Words>
      </Item>
      <Item ruled>
        <Words>Lamps</Words>
      </Item>
    </Items>
    <Disclosure title="What is folded">
      <Words>It stands here now.</Words>
    </Disclosure>
  </Group>
);

const Pages = () => {
  const [page, setPage] = useState<(typeof TABS)[number]['id']>('hits');
  const [sheet, setSheet] = useState(false);
  const [dialog, setDialog] = useState(false);
  return (
    <Group title="Pages and sheets">
      <Tabs label="Work on" tabs={TABS} value={page} onChange={setPage} panel="kit-page" />
      <View {...({ id: 'kit-page', role: 'tabpanel', 'aria-labelledby': tabId('kit-page', page) } as object)}>
        <Words>{`The page of ${page}.`}</Words>
      </View>
      <Chips>
        <Chip onPress={() => setSheet(true)}>Open a sheet</Chip>
        <Chip onPress={() => setDialog(true)}>Ask something</Chip>
      </Chips>
      <Sheet title="A sheet" open={sheet} onClose={() => setSheet(false)}>
        <Words>From below, closed by Escape.</Words>
      </Sheet>
      <Dialog
        title="Leave the pier?"
        open={dialog}
        onClose={() => setDialog(false)}
        actions={<Action label="Stay" kind="filled" onPress={() => setDialog(false)} />}
      >
        <Para>What was kept stays kept.</Para>
      </Dialog>
    </Group>
  );
};

/** Every part that screens are made of, in its states: to be looked at and tested, and linked from nowhere. */
export const KitScreen = () => (
  <>
    <ScreenHead title="Parts" style={styles.head} under={<Words quiet>What screens are made of</Words>} />
    <Page inner={styles.page}>
      <Buttons />
      <Choices />
      <Fields />
      <Told />
      <Pages />
    </Page>
  </>
);
