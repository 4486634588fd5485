/** Someone who presses whatever there is, at random but the same way each time: buttons, steps, sliders, choices, keys. */
import type { Page } from '@playwright/test';

export interface Wandered {
  actions: number;
  /** What went wrong, each with the actions that led there. */
  faults: string[];
  /** How often everything was undone and redone. */
  turned: number;
}

/** Numbers from 0 to 1 that follow from a seed (mulberry32). */
const randoms = (seed: number): (() => number) => {
  let now = seed >>> 0;
  return () => {
    now = (now + 0x6d2b79f5) >>> 0;
    let t = now;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
};

/** What would open a dialog of the system's or hand out a file: nothing comes of it that could be looked at here. */
const NOT_PRESSED =
  '^(save|export|download|share|open (a|midi|files|template|feel|the server)|.*\\\\.(json|mid|csv|midnam|wav)\\\\b|load|choose (a )?file|from a midi file|take a template from a midi|print|drag)';

const KEYS = [
  'Space',
  'Enter',
  'Delete',
  'Backspace',
  'Escape',
  'ArrowLeft',
  'ArrowRight',
  'ArrowUp',
  'ArrowDown',
  'Alt+ArrowRight',
  'Alt+ArrowLeft',
  'Shift+ArrowRight',
  'Shift+ArrowDown',
  'Control+a',
  'Control+c',
  'Control+x',
  'Control+v',
  'Control+d',
  'Control+z',
  'Control+Shift+z',
  'o',
  'h',
  'm',
  's',
  'r',
  'k',
  'c',
  '1',
  '9',
  ',',
  '.',
  'Shift+Comma',
  'Shift+Digit1',
  'Home',
  'End',
  'Tab',
  'Shift+Tab',
];

/** Put into the page: finds what can be worked, and reads the beat and its history. */
const HANDS = `
window.hands = (() => {
  const never = new RegExp(${JSON.stringify(NOT_PRESSED)}.replaceAll('\\\\\\\\', '\\\\'), 'i');
  const nameOf = (el) =>
    (el.getAttribute('aria-label') || el.labels?.[0]?.textContent || el.textContent || el.value || '').trim().slice(0, 60);
  let store = null;
  const findStore = () => {
    if (store) return store;
    const root = [...document.querySelectorAll('*')].find((el) => Object.keys(el).some((key) => key.startsWith('__reactContainer$'))) ?? document;
    const key = Object.keys(root).find((one) => one.startsWith('__reactContainer$'));
    const walk = [root[key]];
    while (walk.length) {
      const fiber = walk.pop();
      if (!fiber) continue;
      if (fiber.memoizedProps?.store?.getState) return (store = fiber.memoizedProps.store);
      walk.push(fiber.sibling, fiber.child);
    }
    return null;
  };
  const workable = () =>
    [...document.querySelectorAll('button, a[href], select, input, [role=checkbox], [role=tab], [role=switch], summary')].filter((el) => {
      if (el.disabled || el.getAttribute('aria-disabled') === 'true' || el.type === 'file') return false;
      const box = el.getBoundingClientRect();
      return box.width > 0 && box.height > 0 && getComputedStyle(el).visibility !== 'hidden' && !never.test(nameOf(el));
    });
  let at = null;
  return {
    pick: (which) => {
      const all = workable();
      const steps = all.filter((el) => el.dataset.step !== undefined);
      const rest = all.filter((el) => el.dataset.step === undefined);
      // Steps are many; they would leave little for the rest.
      const among = steps.length && (which * 7) % 1 < 0.25 ? steps : rest;
      at = among[Math.floor(which * among.length)] ?? null;
      if (!at) return null;
      at.scrollIntoView({ block: 'center', inline: 'center' });
      const box = at.getBoundingClientRect();
      const x = box.left + box.width / 2;
      const y = box.top + box.height / 2;
      const top = document.elementFromPoint(x, y);
      const free = top && (top === at || at.contains(top) || [...(at.labels ?? [])].some((label) => label.contains(top)));
      return {
        name: nameOf(at), tag: at.tagName, type: at.type ?? '', x, y, free: Boolean(free),
        left: box.left, width: box.width,
        options: at.tagName === 'SELECT' ? [...at.options].map(({ value }) => value) : [],
      };
    },
    choose: (value) => {
      const set = Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, 'value').set;
      at.focus();
      set.call(at, value);
      at.dispatchEvent(new Event('change', { bubbles: true }));
    },
    focused: () => (document.activeElement && document.activeElement !== document.body ? nameOf(document.activeElement) || document.activeElement.tagName : null),
    dispatch: (action) => findStore().dispatch(action),
    beat: () => { const { doc } = findStore().getState(); return doc.beat ? JSON.stringify(doc.beat) : null; },
    history: () => { const { doc } = findStore().getState(); return { past: doc.past.length, future: doc.future.length, id: doc.beat?.id ?? null }; },
  };
})();
`;

interface Picked {
  name: string;
  tag: string;
  type: string;
  x: number;
  y: number;
  free: boolean;
  left: number;
  width: number;
  options: string[];
}

interface Hands {
  pick(which: number): Picked | null;
  choose(value: string): void;
  focused(): string | null;
  dispatch(action: object): void;
  beat(): string | null;
  history(): { past: number; future: number; id: string | null };
}
declare global {
  interface Window {
    hands: Hands;
  }
}

/** Puts the hands into a page that has none. */
export const ready = async (page: Page): Promise<void> => {
  if (!(await page.evaluate(() => 'hands' in window))) await page.evaluate(HANDS);
};

/** Until nothing is on its way any more: on a busy machine a tap may reach the page a good while after it was made. */
const settled = async (page: Page): Promise<void> => {
  let before = -1;
  for (let turn = 0; turn < 20; turn++) {
    const { past } = await page.evaluate(() => window.hands.history());
    if (past === before) return;
    before = past;
    await page.waitForTimeout(60);
  }
};

/** All is undone, then redone: the beat is to be the same, byte for byte. */
const turned = async (page: Page): Promise<string | null> => {
  await ready(page);
  await settled(page);
  const before = await page.evaluate(() => ({ beat: window.hands.beat(), ...window.hands.history() }));
  if (!before.past || before.future) return null;
  const press = (key: string, times: number) =>
    page.evaluate(
      ({ shift, times: n }) => {
        for (let i = 0; i < n; i++)
          window.dispatchEvent(
            new KeyboardEvent('keydown', {
              key: 'z',
              ctrlKey: true,
              shiftKey: shift,
              bubbles: true,
              cancelable: true,
            }),
          );
      },
      { shift: key === 'redo', times },
    );
  await press('undo', before.past);
  const bare = await page.evaluate(() => window.hands.history());
  if (bare.past !== 0) return `of ${before.past} edits ${bare.past} could not be undone`;
  await press('redo', before.past);
  const after = await page.evaluate(() => window.hands.beat());
  return after === before.beat ? null : 'what was undone and redone is not as it was';
};

const TEXTS = ['Rain', '', '92', '-7', '300', '0.5', 'Ünder the tarp', 'x'.repeat(100)];

const act = async (page: Page, random: () => number, touch: boolean): Promise<string> => {
  if (random() < 0.2) {
    const key = KEYS[Math.floor(random() * KEYS.length)]!;
    await page.keyboard.press(key);
    return `key ${key}`;
  }
  const picked = await page.evaluate((which) => window.hands.pick(which), random());
  if (!picked) return 'nothing to press';
  const { name, tag, type, x, y, free, left, width, options } = picked;
  if (tag === 'SELECT') {
    const value = options[Math.floor(random() * options.length)] ?? '';
    await page.evaluate((one) => window.hands.choose(one), value);
    return `${name}: ${value}`;
  }
  if (!free) return `${name} is covered`;
  if (type === 'range') {
    await page.mouse.click(left + width * random(), y);
    return `slide ${name}`;
  }
  if (touch && random() < 0.8) await page.touchscreen.tap(x, y);
  else await page.mouse.click(x, y, { clickCount: random() < 0.1 ? 2 : 1 });
  if (tag === 'INPUT' && !['checkbox', 'radio'].includes(type)) {
    const text = TEXTS[Math.floor(random() * TEXTS.length)]!;
    await page.keyboard.press('Control+a');
    await page.keyboard.type(text.slice(0, 20));
    await page.keyboard.press(random() < 0.7 ? 'Enter' : 'Escape');
    return `type “${text.slice(0, 20)}” into ${name}`;
  }
  return `press ${name}`;
};

/**
 * Works the app at random and looks after every action.
 *
 * @param touch taps by finger, most of the time
 */
export const wander = async (
  page: Page,
  seed: number,
  actions: number,
  touch: boolean,
): Promise<Wandered> => {
  const random = randoms(seed);
  const done: string[] = [];
  const out: Wandered = { actions: 0, faults: [], turned: 0 };
  const fault = (what: string) => out.faults.push(`${what} (after: ${done.slice(-4).join(' > ')})`);
  const onError = (error: Error) => fault(`error: ${error.message}`);
  const onConsole = (message: { type(): string; text(): string; location(): { url: string } }) => {
    if (message.type() === 'error')
      fault(`console: ${message.text().slice(0, 200)} ${message.location().url}`);
  };
  page.on('pageerror', onError);
  page.on('console', onConsole);
  page.on('dialog', (dialog) => void dialog.dismiss());
  let had: string | null = null;
  for (let at = 0; at < actions; at++) {
    await ready(page);
    done.push(await act(page, random, touch));
    out.actions += 1;
    await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 15)));
    await ready(page);
    const has = await page.evaluate(() => window.hands.focused());
    if (had !== null && has === null) {
      // What comes in a moment, a screen or a sheet, may take it yet.
      await page.waitForTimeout(400);
      await ready(page);
      if ((await page.evaluate(() => window.hands.focused())) === null)
        fault(`focus fell to the page's body, it was on “${had}”`);
    }
    had = await page.evaluate(() => window.hands.focused());
    if (at % 50 === 49) {
      const wrong = await turned(page);
      out.turned += 1;
      if (wrong) fault(wrong);
    }
  }
  page.off('pageerror', onError);
  page.off('console', onConsole);
  return out;
};
