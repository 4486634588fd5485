/** What stands outside: stand-ins in other windows, with the app beside them. */
import { expect, test, type Page } from '@playwright/test';
import { button, openApp, step } from './app';

// All of it is in real time: a machine that stands still for a moment fails it, whatever the app does.
test.describe.configure({ retries: 3 });

const beside = async (page: Page, path: string): Promise<Page> => {
  const other = await page.context().newPage();
  await other.goto(path);
  await expect(other.getByRole('heading', { level: 1 })).toBeVisible();
  return other;
};
const transport = (page: Page) => page.getByRole('region', { name: 'Transport' });

test('a beat is programmed on the grid, follows the host, and records what the module plays', async ({
  page,
}) => {
  test.setTimeout(120000);
  await openApp(page);
  await page.goto('/ports');
  await expect(page.getByText('No port is there yet.', { exact: false })).toBeVisible();
  const grid = await beside(page, '/stand-ins/grid');
  const host = await beside(page, '/stand-ins/host');
  const module = await beside(page, '/stand-ins/module');
  for (const name of ['Grid stand-in 8', 'Host stand-in', 'Module stand-in'])
    await expect(page.getByRole('group', { name, exact: true })).toBeVisible();

  await page.getByRole('link', { name: 'Pattern' }).click();
  // The grid: steps with their lights, mute told at a glance.
  await expect(step(page, 'Kick', 2)).not.toBeChecked();
  await grid.getByRole('button', { name: 'Pad 2 in row 1, dark' }).click();
  await expect(step(page, 'Kick', 2)).toBeChecked();
  await expect(grid.getByRole('button', { name: 'Pad 2 in row 1, hit' })).toBeVisible();
  await button(grid, 'Mute').click();
  await grid.getByRole('button', { name: 'Pad 1 in row 2, lit' }).click();
  await expect(button(page, '1 muted: clear')).toBeVisible();
  await expect(grid.getByRole('button', { name: 'Pad 1 in row 2, muted' })).toBeVisible();
  await grid.getByRole('button', { name: 'Pad 1 in row 2, muted' }).click();
  await button(grid, 'Patterns').click();
  await grid.getByRole('button', { name: 'Pad 2 in row 1, hit' }).click();
  await expect(page.getByRole('button', { name: /^B .*, pattern shown$/ })).toBeVisible();
  await grid.getByRole('button', { name: 'Pad 1 in row 1, hit' }).click();

  // The host leads: its tempo is shown and played, and a change of it.
  await button(host, 'Play').click();
  await expect(transport(page)).toContainText('by Host');
  await expect(button(page, 'Stop')).toBeVisible();
  await expect(
    page
      .getByRole('textbox', { name: 'Tempo' })
      .or(page.getByLabel('Tempo', { exact: true }))
      .first(),
  ).toHaveValue(/^11[12]/, { timeout: 10000 });
  // The module sounds and prints what the lanes play.
  await expect(module.getByRole('log')).toContainText('note 36');
  await button(host, 'Stop').click();
  await expect(button(page, 'Play')).toBeVisible();

  // What its keys play is recorded.
  await page.bringToFront();
  await page.getByRole('tab', { name: 'Pads' }).click();
  await button(page, 'Record').click();
  await button(page, 'Play').click();
  const before = await page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count();
  await page.waitForTimeout(900);
  await module.getByRole('button', { name: 'Key Low tom' }).click();
  await expect
    .poll(() => page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count())
    .toBe(before + 1);
  await button(page, 'Stop').click();

  // What is held rolls on the steps, as hard as it is pressed by then.
  await page.getByLabel('Repeat what is held', { exact: true }).selectOption('1/16');
  await button(page, 'Play').click();
  await page.waitForTimeout(600);
  const key = (await module.getByRole('button', { name: 'Key Low tom' }).boundingBox())!;
  await module.mouse.move(key.x + 40, key.y + key.height - 6);
  await module.mouse.down();
  await page.waitForTimeout(500);
  await module.mouse.move(key.x + 40, key.y + 4);
  await page.waitForTimeout(500);
  await module.mouse.up();
  await button(page, 'Stop').click();
  expect(await page.getByRole('checkbox', { name: /^Low tom, step/, checked: true }).count()).toBeGreaterThan(
    before + 5,
  );

  // Unplugged is told, and taken up again.
  await grid.close();
  await expect(page.getByText('Grid stand-in 8 is gone.', { exact: false })).toBeVisible();
  const again = await beside(page, '/stand-ins/grid');
  await expect(again.getByRole('button', { name: 'Pad 2 in row 1, hit' })).toBeVisible();
});

/** A machine with two pads of one kind, as a browser gives them; what is sent is kept with its time. */
const withDevices = (page: Page) =>
  page.addInitScript(() => {
    class Device extends EventTarget {
      state = 'connected';
      connection = 'closed';
      manufacturer = '';
      version = '1';
      onmidimessage: ((event: object) => void) | null = null;
      onstatechange: ((event: object) => void) | null = null;
      sent: { bytes: number[]; time: number }[] = [];
      constructor(
        readonly id: string,
        readonly name: string,
        readonly type: string,
      ) {
        super();
      }
      open() {
        this.connection = 'open';
        return Promise.resolve(this);
      }
      close() {
        this.connection = 'closed';
        return Promise.resolve(this);
      }
      send(bytes: Iterable<number>, time = performance.now()) {
        this.sent.push({ bytes: [...bytes], time });
      }
      clear() {
        const now = performance.now();
        this.sent = this.sent.filter((one) => one.time <= now);
      }
      play(...bytes: number[]) {
        const event = Object.assign(new Event('midimessage'), { data: Uint8Array.from(bytes) });
        this.onmidimessage?.(event);
        this.dispatchEvent(event);
      }
    }
    const names = ['Quay pad', 'Quay pad'];
    const inputs = names.map((name, at) => new Device(`in ${at}`, name, 'input'));
    const outputs = names.map((name, at) => new Device(`out ${at}`, name, 'output'));
    const of = (all: Device[]) => new Map(all.map((one) => [one.id, one]));
    const access = Object.assign(new EventTarget(), {
      inputs: of(inputs),
      outputs: of(outputs),
      sysexEnabled: false,
      onstatechange: null as ((event: object) => void) | null,
    });
    const plug = (is: boolean) => {
      for (const [list, port] of [
        [access.inputs, inputs[1]!],
        [access.outputs, outputs[1]!],
      ] as const) {
        port.state = is ? 'connected' : 'disconnected';
        port.connection = is ? 'open' : 'pending';
        if (is) list.set(port.id, port);
        else list.delete(port.id);
        const event = Object.assign(new Event('statechange'), { port });
        access.onstatechange?.(event);
      }
    };
    Object.assign(navigator, { requestMIDIAccess: () => Promise.resolve(access) });
    Object.assign(window, { devices: { inputs, outputs, plug } });
  });

interface Devices {
  inputs: { play: (...bytes: number[]) => void }[];
  outputs: { sent: { bytes: number[]; time: number }[] }[];
  plug: (is: boolean) => void;
}
const devices = <T>(page: Page, work: (all: Devices) => T): Promise<T> =>
  page.evaluate(`(${work.toString()})(window.devices)`);

test('devices of the machine: both of one kind, played out in time, heard, unplugged and plugged in again', async ({
  page,
}) => {
  await withDevices(page);
  await openApp(page);
  await page.goto('/ports');
  await button(page, 'Use the devices of this machine').click();
  const second = page.getByRole('group', { name: 'Quay pad 2', exact: true });
  await expect(page.getByRole('group', { name: 'Quay pad', exact: true })).toBeVisible();
  await expect(second).toBeVisible();
  await page.getByRole('checkbox', { name: 'Play the lanes on it: Quay pad 2', exact: true }).click();
  await button(page, 'Play').click();
  await expect
    .poll(() =>
      devices(page, ({ outputs }) => outputs[1]!.sent.filter(({ bytes }) => bytes[1] === 36).length),
    )
    .toBeGreaterThan(2);
  expect(await devices(page, ({ outputs }) => outputs[0]!.sent.length)).toBe(0);
  await button(page, 'Stop').click();
  // A stop takes back what was ahead, and leaves no note on.
  const left = await devices(page, ({ outputs }) => {
    const on = new Set<number>();
    for (const { bytes } of outputs[1]!.sent)
      if ((bytes[0]! & 0xf0) === 0x90 && bytes[2]) on.add(bytes[1]!);
      else on.delete(bytes[1]!);
    return [...on];
  });
  expect(left).toEqual([]);

  await devices(page, ({ plug }) => plug(false));
  await expect(page.getByText('Quay pad 2 is gone.', { exact: false })).toBeVisible();
  await devices(page, ({ plug }) => plug(true));
  await expect(page.getByText('Quay pad 2 is there.', { exact: false })).toBeVisible();
  // What it plays is heard and taken down, a step at a time.
  await page.getByRole('link', { name: 'Pattern' }).click();
  await page.getByRole('tab', { name: 'Pads' }).or(button(page, 'Pads')).first().click();
  await button(page, 'Step by step').click();
  const hits = () => page.getByRole('checkbox', { name: /^Kick, step/, checked: true }).count();
  const before = await hits();
  await step(page, 'Kick', 2).focus();
  await devices(page, ({ inputs }) => inputs[1]!.play(0x99, 36, 100));
  await expect.poll(hits).toBe(before + 1);
});

/** How far the kicks that are sent out lie from the quarters of the host's clock, in ms, from a second after its start on. */
const kicksOff = async (spy: Page): Promise<number[]> =>
  spy.evaluate(() => {
    const { heard } = window as unknown as {
      heard: { type: string; to: string; bytes: number[]; time: number; at: number }[];
    };
    const ticks = heard.filter(({ to, bytes }) => to === 'app' && bytes[0] === 0xf8).map(({ time }) => time);
    let kicks: number[] = [];
    for (const { type, to, bytes, time, at } of heard)
      // What was sent ahead is taken back where the clock is followed anew.
      if (type === 'clear') kicks = kicks.filter((one) => one <= at);
      else if (to === 'device' && (bytes[0]! & 0xf0) === 0x90 && bytes[1] === 36) kicks.push(time);
    const [first, last] = [ticks[0]! + 1000, ticks.at(-1)!];
    const quarters = ticks.filter((_, n) => n % 24 === 0);
    return kicks
      .filter((kick) => kick > first && kick < last)
      .map((kick) => Math.min(...quarters.map((quarter) => Math.abs(kick - quarter))));
  });

test('what is sent out stands on the quarters of whoever leads, from the first start and from the next', async ({
  page,
}) => {
  await openApp(page);
  await button(page, 'Beats').click();
  await button(page, 'New beat').click();
  await page.keyboard.press('Escape');
  for (const number of [1, 5, 9, 13]) await step(page, 'Kick', number).click();
  await page.goto('/ports');
  await expect(page.getByText('No port is there yet.', { exact: false })).toBeVisible();
  const spy = await page.context().newPage();
  await spy.goto('/health');
  await spy.evaluate(() => {
    const heard: object[] = [];
    Object.assign(window, { heard });
    const cable = new BroadcastChannel('ruddik-cable');
    const origin = performance.timeOrigin;
    cable.onmessage = ({ data }: MessageEvent<{ type: string; bytes?: number[] }>) =>
      heard.push({ bytes: [], ...data, at: performance.now() + origin });
  });
  const host = await beside(page, '/stand-ins/host');
  await beside(page, '/stand-ins/module');
  await expect(page.getByRole('group', { name: 'Module stand-in', exact: true })).toBeVisible();
  await page.bringToFront();
  for (const turn of [1, 2]) {
    await spy.evaluate(() => void ((window as unknown as { heard: object[] }).heard.length = 0));
    await button(host, 'Play').click();
    await page.waitForTimeout(5000);
    await button(host, 'Stop').click();
    const off = await kicksOff(spy);
    expect(off.length, `start ${turn}`).toBeGreaterThan(5);
    expect(Math.max(...off), `start ${turn}`).toBeLessThan(2);
    await page.waitForTimeout(700);
  }
});
