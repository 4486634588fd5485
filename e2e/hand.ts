/** Two ways to work the app with nothing else beside them: a thumb on glass, and keys alone. */
import { expect, type Locator, type Page } from '@playwright/test';
import { step } from './app';

export interface Hand {
  /** Presses what can be pressed. */
  press(what: Locator): Promise<void>;
  /** Writes into a field, and is done with it. */
  write(field: Locator, value: string): Promise<void>;
  /** Puts a hit on an empty step of a closed string, or takes it off. */
  toggle(lane: string, number: number): Promise<void>;
  /** Puts hits on the steps from one to another. */
  paint(lane: string, from: number, to: number): Promise<void>;
  /** Selects the hit of a step in the open string. */
  select(lane: string, number: number): Promise<void>;
  /** Makes the selected hit softer. */
  soften(lane: string, number: number): Promise<void>;
  /** Moves a slider to a value, or near it. */
  slide(what: Locator, to: number): Promise<void>;
  /** Chooses from a list of choices by what is written there. */
  choose(what: Locator, label: string): Promise<void>;
}

const middleOf = async (what: Locator): Promise<{ x: number; y: number }> => {
  await what.scrollIntoViewIfNeeded();
  const box = (await what.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2 };
};

const valueOf = async (what: Locator): Promise<number> =>
  Number((await what.getAttribute('aria-valuenow')) ?? (await what.inputValue()));

const rangeOf = (what: Locator): Promise<[number, number]> =>
  what.evaluate((node) => [
    Number(node.getAttribute('aria-valuemin') ?? node.getAttribute('min')),
    Number(node.getAttribute('aria-valuemax') ?? node.getAttribute('max')),
  ]);

/** A thumb: nothing but touches reach the page. */
export const thumb = async (page: Page): Promise<Hand> => {
  const glass = await page.context().newCDPSession(page);
  const touch = (type: string, points: { x: number; y: number }[]) =>
    glass.send('Input.dispatchTouchEvent', { type: type as 'touchStart', touchPoints: points });
  const drag = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
    await touch('touchStart', [from]);
    for (let part = 1; part <= 8; part++)
      await touch('touchMove', [
        { x: from.x + ((to.x - from.x) * part) / 8, y: from.y + ((to.y - from.y) * part) / 8 },
      ]);
    await touch('touchEnd', []);
  };
  /** Where the bead of a hit lies in the open string: as high as its velocity. */
  const bead = async (lane: string, number: number) => {
    const place = step(page, lane, number);
    await place.scrollIntoViewIfNeeded();
    const box = (await place.boundingBox())!;
    return { x: box.x + box.width / 2, y: box.y + box.height / 4 };
  };
  /** Where it comes to rest: a string that has just been opened is still brought into sight. */
  const atRest = async (lane: string, number: number) => {
    let last = await bead(lane, number);
    for (let look = 0; look < 20; look++) {
      await page.waitForTimeout(150);
      const now = await bead(lane, number);
      if (now.x === last.x && now.y === last.y) return now;
      last = now;
    }
    return last;
  };
  const press = (what: Locator) =>
    // What is drawn anew under the thumb is touched again.
    expect(async () => {
      await what.scrollIntoViewIfNeeded({ timeout: 3000 });
      await what.tap({ timeout: 3000 });
    }).toPass({ timeout: 15000 });
  return {
    press,
    write: async (field, value) => {
      await press(field);
      await field.fill(value);
      // The glass keyboard's own key for it.
      await field.press('Enter');
    },
    toggle: (lane, number) => press(step(page, lane, number)),
    paint: async (lane, from, to) =>
      drag(await middleOf(step(page, lane, from)), await middleOf(step(page, lane, to))),
    select: async (lane, number) => {
      const at = await atRest(lane, number);
      await page.touchscreen.tap(at.x, at.y);
    },
    soften: async (lane, number) => {
      const at = await bead(lane, number);
      await drag(at, { x: at.x, y: at.y + 50 });
    },
    slide: async (what, to) => {
      await what.scrollIntoViewIfNeeded();
      const box = (await what.boundingBox())!;
      const place = async (value: number) => {
        const [least, most] = await rangeOf(what);
        return { x: box.x + (box.width * (value - least)) / (most - least), y: box.y + box.height / 2 };
      };
      await drag(await place(await valueOf(what)), await place(to));
    },
    choose: async (what, label) => {
      await press(what);
      await what.selectOption({ label });
    },
  };
};

/**
 * Asks a thing in the page again and again: looked up by its name once, and anew only where it was drawn anew, since that
 * takes longer than the key that is pressed meanwhile.
 */
const asked = async <T>(what: Locator, ask: (node: Element) => T): Promise<() => Promise<T>> => {
  let handle = await what.elementHandle();
  return async () => {
    if (!(await handle!.evaluate((node) => node.isConnected))) handle = await what.elementHandle();
    return handle!.evaluate(ask as (node: Element) => unknown) as Promise<T>;
  };
};

/** The keys: no pointer is moved and no focus is set but by Tab, arrows and the keys that the app names. */
export const keys = (page: Page): Hand => {
  /** Walks to a control: by Tab to it, or to its row and along that by arrows. */
  const reach = async (what: Locator) => {
    await expect(what).toBeVisible();
    const wayTo = await asked(what, (node) => {
      const on = document.activeElement;
      if (node === on) return 'there';
      const row = node.closest(
        '[role=tablist], [role=listbox], [role=radiogroup], [role=toolbar], [role=group]',
      );
      const walked = row !== null && on !== null && row.contains(on) && (node as HTMLElement).tabIndex < 0;
      const bar = node.closest('[data-row]');
      const pressed = 'button, [role="button"], a[href]';
      const beside = bar !== null && on?.closest('[data-row]') === bar && on.matches(pressed);
      const before =
        on !== null && (node.compareDocumentPosition(on) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
      if (walked || (beside && node.matches(pressed))) return before ? 'ArrowLeft' : 'ArrowRight';
      return before ? 'Shift+Tab' : 'Tab';
    });
    for (let press = 0; press < 260; press++) {
      const way = await wayTo();
      if (way === 'there') return;
      await page.keyboard.press(way);
    }
    throw new Error(`By keys it is not reached: ${what.toString()}`);
  };
  /** Walks over the strings to a step. */
  const walk = async (lane: string, number: number) => {
    const target = step(page, lane, number);
    if (!(await page.evaluate(() => document.activeElement?.hasAttribute('data-step') ?? false))) {
      for (let press = 0; press < 80; press++) {
        if (await page.evaluate(() => document.activeElement?.hasAttribute('data-step') ?? false)) break;
        const strings = page.locator('[data-step][tabindex="0"]');
        const before = await strings.evaluate(
          (node) =>
            (node.compareDocumentPosition(document.activeElement!) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0,
        );
        await page.keyboard.press(before ? 'Shift+Tab' : 'Tab');
      }
    }
    const wayTo = await asked(target, (node) => {
      if (node === document.activeElement) return null;
      const [to, on] = [node.getBoundingClientRect(), document.activeElement!.getBoundingClientRect()];
      if (Math.abs(to.top - on.top) > 4 && (to.bottom <= on.top + 4 || to.top >= on.bottom - 4))
        return to.top < on.top ? 'ArrowUp' : 'ArrowDown';
      return to.left < on.left ? 'ArrowLeft' : 'ArrowRight';
    });
    for (let press = 0; press < 80; press++) {
      const way = await wayTo();
      if (!way) break;
      await page.keyboard.press(way);
    }
    await expect(target).toBeFocused();
  };
  return {
    press: async (what) => {
      await reach(what);
      await page.keyboard.press('Enter');
    },
    write: async (field, value) => {
      await reach(field);
      await page.keyboard.press('Control+a');
      await page.keyboard.type(value);
      await page.keyboard.press('Enter');
    },
    toggle: async (lane, number) => {
      await walk(lane, number);
      await page.keyboard.press('Space');
    },
    paint: async (lane, from, to) => {
      for (let number = from; number <= to; number++) {
        await walk(lane, number);
        await page.keyboard.press('Space');
      }
    },
    select: walk,
    soften: async (lane, number) => {
      await walk(lane, number);
      await page.keyboard.press('5');
    },
    slide: async (what, to) => {
      await reach(what);
      for (let press = 0; press < 100; press++) {
        const value = await valueOf(what);
        if (value === to) return;
        await page.keyboard.press(value < to ? 'ArrowUp' : 'ArrowDown');
      }
    },
    choose: async (what, label) => {
      await reach(what);
      await page.keyboard.type(label);
      await page.keyboard.press('Enter');
    },
  };
};
