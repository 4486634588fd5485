import type { Early } from '../strings/early';

/**
 * What is seen and tapped before the app is there: the first page of the strings, drawn by a few lines of script within the
 * page itself from a small copy of the beat, or from the demo beat at a first visit. Taps are shown and kept at once, and done
 * again by the app when it stands, or by the next one.
 */
export interface EarlyTap {
  lane: string;
  step: number;
  on: boolean;
}

export interface EarlyTaps {
  beat: string;
  pattern: string;
  taps: EarlyTap[];
}

/** Where the copy lies in the browser's small store; taps lie behind it. */
export const EARLY_KEY = 'ruddik/early';

declare global {
  interface Window {
    /** Taps that the small store did not take. */
    ruddikEarly?: EarlyTaps | undefined;
  }
}

/**
 * Runs as text within the page, before any other code: it may use nothing from outside itself, and nothing that a compiler
 * puts helpers in for.
 */
/* eslint-disable no-var */
export const drawEarly = function (first: Early, key: string): void {
  var given = first;
  try {
    var kept = localStorage.getItem(key);
    if (kept && (JSON.parse(kept) as Partial<Early>).form === first.form) given = JSON.parse(kept) as Early;
  } catch {
    given = first;
  }
  var place = document.getElementById('strings-to-come');
  if (!place) return;
  try {
    var room = place.getBoundingClientRect();
    var names = given.names;
    var point = (room.width - names) / (given.page + 40);
    var tall = given.tall;
    var own = key + '/' + Math.random();
    var made: EarlyTaps = { beat: given.beat, pattern: given.pattern, taps: [] };
    var sheet = document.createElement('div');
    sheet.className = 'early';
    sheet.setAttribute('role', 'group');
    sheet.setAttribute('aria-label', 'Strings, the rest is on its way');
    sheet.style.cssText =
      'left:' +
      room.left +
      'px;top:' +
      room.top +
      'px;width:' +
      room.width +
      'px;height:' +
      room.height +
      'px;--tall:' +
      tall +
      'px';
    var look = function (bead: HTMLElement, velocity: number, material: string): void {
      var size = velocity ? 6 + velocity * 0.126 : 4;
      var across = velocity && material === 'metal' ? size * 0.44 : size;
      var down = velocity && material === 'metal' ? size * 1.24 : size;
      bead.className = velocity ? 'bead ' + material : 'bead';
      bead.style.width = across + 'px';
      bead.style.height = down + 'px';
      bead.style.margin = -down / 2 + 'px 0 0 ' + -across / 2 + 'px';
    };
    var lines = function (every: number, dye: string): string {
      return (
        'repeating-linear-gradient(90deg,var(--' + dye + ') 0 1px,transparent 1px ' + every * point + 'px)'
      );
    };
    var rules = document.createElement('div');
    rules.className = 'early-rules';
    rules.style.left = names + 120 * point + 'px';
    rules.style.height = tall * given.lanes.length + 'px';
    rules.style.backgroundImage = lines(given.beatTicks, 'line') + ',' + lines(240, 'rule');
    sheet.appendChild(rules);
    for (var beat = 0; beat * given.beatTicks < given.page; beat += 1) {
      var figure = document.createElement('span');
      figure.className = 'early-count';
      figure.textContent = String(beat + 1);
      figure.style.left = names + (120 + beat * given.beatTicks) * point + 'px';
      sheet.appendChild(figure);
    }
    for (var at = 0; at < given.lanes.length; at += 1) {
      var lane = given.lanes[at]!;
      var row = document.createElement('div');
      row.className = lane.silent ? 'row silent' : 'row';
      row.style.setProperty('--dye', 'var(--' + lane.dye + ')');
      var name = document.createElement('span');
      name.className = 'early-name';
      name.textContent = lane.name;
      row.appendChild(name);
      var mark = document.createElement('i');
      look(mark, 20, lane.material);
      mark.style.left = '4px';
      row.appendChild(mark);
      for (var one = 0; one < lane.steps.length; one += 1) {
        var cell = lane.steps[one]!;
        var button = document.createElement('button');
        var bead = document.createElement('i');
        button.type = 'button';
        button.setAttribute('role', 'checkbox');
        button.setAttribute('aria-checked', cell[3] ? 'true' : 'false');
        button.setAttribute('aria-label', lane.name + ', step ' + (cell[0] + 1));
        button.dataset['early'] = lane.id;
        button.dataset['at'] = String(cell[0]);
        button.dataset['velocity'] = String(cell[3] || 100);
        button.dataset['material'] = lane.material;
        button.tabIndex = at || one ? -1 : 0;
        button.style.left = names + (cell[1] + 120) * point + 'px';
        button.style.width = (cell[2] - cell[1]) * point + 'px';
        bead.style.left = (cell[4] - cell[1]) * point + 'px';
        look(bead, cell[3], lane.material);
        button.appendChild(bead);
        row.appendChild(button);
      }
      sheet.appendChild(row);
    }
    sheet.addEventListener('click', function (event) {
      var target = event.target as HTMLElement;
      var pressed = target.closest('button');
      if (!pressed) return;
      var on = pressed.getAttribute('aria-checked') !== 'true';
      pressed.setAttribute('aria-checked', on ? 'true' : 'false');
      look(
        pressed.firstChild as HTMLElement,
        on ? Number(pressed.dataset['velocity']) : 0,
        pressed.dataset['material']!,
      );
      made.taps.push({ lane: pressed.dataset['early']!, step: Number(pressed.dataset['at']), on: on });
      try {
        localStorage.setItem(own, JSON.stringify(made));
      } catch {
        window.ruddikEarly = made;
      }
    });
    document.body.appendChild(sheet);
  } catch {
    // A copy that cannot be drawn is none: the app comes a moment later.
  }
};
/* eslint-enable no-var */

/** What was drawn before the app was there goes: still seen until the strings under it are painted, and no longer. */
export const dropEarly = (): void => {
  const sheet = document.querySelector<HTMLElement>('.early');
  if (!sheet || sheet.inert) return;
  sheet.inert = true;
  sheet.setAttribute('aria-hidden', 'true');
  requestAnimationFrame(() => requestAnimationFrame(() => sheet.remove()));
};

const isTap = (value: unknown): value is EarlyTap => {
  const { lane, step, on } = (value ?? {}) as Partial<EarlyTap>;
  return typeof lane === 'string' && Number.isInteger(step) && step! >= 0 && typeof on === 'boolean';
};

/** Taps as they were kept; null for what is none. */
const tapsIn = (text: string | null): EarlyTaps | null => {
  try {
    const read = JSON.parse(text ?? 'null') as Partial<EarlyTaps> | null;
    const fits =
      typeof read?.beat === 'string' && typeof read.pattern === 'string' && Array.isArray(read.taps);
    return fits && read.taps!.every(isTap) ? (read as EarlyTaps) : null;
  } catch {
    return null;
  }
};

/** Takes what was tapped in a beat before the app was there, by this page or by one that was left at once. */
export const takeTaps = (beat: string): EarlyTaps[] => {
  try {
    return Object.keys(localStorage)
      .filter((key) => key.startsWith(`${EARLY_KEY}/`))
      .flatMap((key) => {
        const read = tapsIn(localStorage.getItem(key));
        if (read && read.beat !== beat) return [];
        localStorage.removeItem(key);
        return read ?? [];
      });
  } catch {
    const taps = window.ruddikEarly;
    if (taps?.beat !== beat) return [];
    window.ruddikEarly = undefined;
    return [taps];
  }
};

/** Keeps the copy that the next start shows. */
export const keepEarly = (copy: Early): void => {
  try {
    localStorage.setItem(EARLY_KEY, JSON.stringify(copy));
  } catch {
    // Where the browser bars it, the next start shows the strings a moment later.
  }
};

/** How high the lanes on the screen are, in points; nothing where none are there. */
export const tallShown = (): number | undefined => {
  const shown = document.querySelector<HTMLElement>('.strings')?.style.getPropertyValue('--tall');
  return shown ? Number.parseFloat(shown) : undefined;
};
