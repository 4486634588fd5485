import { useEffect, useRef } from 'react';
import { firstShown } from './shown';

/** What may take the focus over. No fields of text: on a phone the keyboard would come up by itself. */
const WORKABLE =
  'button, a[href], select, summary, input[type=range], input[type=checkbox], input[type=radio], [tabindex="0"]';

interface Held {
  element: Element;
  /** What it lies in, from the inside out. */
  around: Element[];
  box: DOMRect;
}

const around = (element: Element): Element[] => {
  const out: Element[] = [];
  for (let one = element.parentElement; one; one = one.parentElement) out.push(one);
  return out;
};

const isGone = (element: Element): boolean =>
  !element.isConnected || element.matches(':disabled, [aria-disabled=true]');

const canTake = (element: Element): element is HTMLElement =>
  element instanceof HTMLElement &&
  !element.matches(':disabled, [aria-disabled=true]') &&
  element.getClientRects().length > 0;

/** How far one thing is from where another was. */
const distance = (a: DOMRect, b: DOMRect): number =>
  Math.hypot(a.left + a.width / 2 - b.left - b.width / 2, a.top + a.height / 2 - b.top - b.height / 2);

const nearest = (within: Element, box: DOMRect): HTMLElement | null => {
  let [best, least]: [HTMLElement | null, number] = [null, Infinity];
  for (const one of within.querySelectorAll(WORKABLE)) {
    if (!canTake(one)) continue;
    const far = distance(one.getBoundingClientRect(), box);
    if (far < least) [best, least] = [one, far];
  }
  return best;
};

/** What a bare place belongs to: the sheet or the screen. Focused, it lets the space bar play and Tab go on from there. */
const regionOf = (place: Element): HTMLElement | null => {
  const region = place.closest<HTMLElement>('[role=dialog]') ?? document.querySelector<HTMLElement>('main');
  if (region && !region.hasAttribute('tabindex')) region.tabIndex = -1;
  return region;
};

/**
 * Who takes the focus over from what is gone: the nearest thing that can be worked in the closest surrounding that is
 * still there; where a whole screen has gone, the heading of the one that came.
 */
export const heirOf = ({ around: all, box }: Held): HTMLElement | null => {
  const main = document.querySelector('main');
  for (const one of all.filter(({ isConnected }) => isConnected)) {
    if (one === main || one === document.body || one.contains(main)) break;
    const heir = nearest(one, box);
    if (heir) return heir;
  }
  const heading = firstShown('main h1');
  if (!heading) return main ? nearest(main, box) : null;
  heading.tabIndex = -1;
  return heading;
};

/** Whether a press on something moves the focus onto it, or onto what it lies in. */
const takesPress = (target: EventTarget | null): boolean => {
  if (!(target instanceof Element)) return false;
  const taken = target.closest(`${WORKABLE}, input, textarea, label, [tabindex]`);
  return taken !== null && !taken.matches('main, [role=dialog]');
};

/**
 * The focus never falls back to the page when what had it goes away, is moved, or can no longer be pressed. Whoever moves
 * it on purpose, a sheet say, has the first word; who presses where nothing is gives it to the screen or sheet itself.
 */
export const useFocusKept = (path: string): void => {
  const again = useRef<() => void>(() => undefined);
  // A screen that is put away takes the focus with it, and nothing in the page is added or removed.
  useEffect(() => again.current(), [path]);
  useEffect(() => {
    let held: Held | null = null;
    /** Where nothing was that can be worked, and it was pressed. */
    let blank: Element | null = null;
    /** The place of a screen that is still loading, which has the focus until something of it comes. */
    let keeping: Element | null = null;
    let asked = 0;
    let resting: ReturnType<typeof setTimeout> | undefined;
    const hold = ({ target }: FocusEvent) => {
      if (target instanceof Element && target !== document.body)
        held = { element: target, around: around(target), box: target.getBoundingClientRect() };
    };
    const letGo = ({ target }: PointerEvent) => {
      blank = takesPress(target) || !(target instanceof Element) ? null : target;
      if (blank) held = null;
    };
    const isLost = (): boolean => {
      const has = document.activeElement;
      return !has || has === document.body || has === keeping;
    };
    const mend = () => {
      asked = 0;
      resting = undefined;
      if (!held && blank && isLost()) return regionOf(blank)?.focus({ preventScroll: true });
      if (!held || !(isLost() || isGone(held.element))) return;
      if (!isLost() && document.activeElement !== held.element) return;
      // A row that was moved in its list loses the focus though it is still there.
      const heir = !isGone(held.element) && canTake(held.element) ? held.element : heirOf(held);
      if (!heir) {
        const kept = held;
        keeping = regionOf(document.body);
        if (keeping instanceof HTMLElement) keeping.focus({ preventScroll: true });
        held = kept;
        return;
      }
      keeping = null;
      // Where it takes it, that is what is held from now on; behind a sheet that is still closing nothing does yet.
      heir.focus({ preventScroll: true });
    };
    // What is no longer shown loses the focus without an event, and only when the frame is laid out: it is looked at after.
    const look = () => {
      if (!asked && !resting && (held ?? blank))
        asked = requestAnimationFrame(() => {
          asked = 0;
          resting = setTimeout(mend);
        });
    };
    const watch = new MutationObserver(look);
    watch.observe(document.body, {
      childList: true,
      subtree: true,
      attributeFilter: ['disabled', 'aria-disabled'],
    });
    again.current = look;
    document.addEventListener('focusin', hold);
    // A press on what cannot be pressed changes nothing in the page, and takes the focus all the same.
    document.addEventListener('focusout', look);
    document.addEventListener('pointerdown', letGo, true);
    return () => {
      watch.disconnect();
      document.removeEventListener('focusin', hold);
      document.removeEventListener('focusout', look);
      document.removeEventListener('pointerdown', letGo, true);
      cancelAnimationFrame(asked);
      clearTimeout(resting);
    };
  }, []);
};
