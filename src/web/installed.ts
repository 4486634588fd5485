/** The app as it is kept in the browser: it opens without its server, and a newer one is offered and never forced. */

/** What of the browser's service workers is used. */
export interface Workers {
  controller: unknown;
  register: (url: string, options?: { updateViaCache: 'none' }) => Promise<Registration>;
  addEventListener: (kind: 'controllerchange', hear: () => void) => void;
}
export interface Registration {
  waiting: { postMessage: (text: string) => void } | null;
  active?: { postMessage: (text: string) => void } | null;
  installing: { state: string; addEventListener: (kind: 'statechange', hear: () => void) => void } | null;
  update: () => Promise<unknown>;
  addEventListener: (kind: 'updatefound', hear: () => void) => void;
}

export interface InstalledParts {
  workers: Workers;
  /** A newer app is ready: it is used when `use` is called. */
  onReady: (use: () => void) => void;
  /** Another page went over to a newer app: this one goes on with its own until it is opened anew. */
  onElsewhere: (reload: () => void) => void;
  /** All that is not yet written is written. */
  flush: () => Promise<unknown>;
  reload: () => void;
  /** So often a newer one is looked for, in ms. */
  every?: number;
}

const HOUR = 3_600_000;

/**
 * Keeps the app in the browser and looks for a newer one.
 *
 * @returns what ends looking; nothing is told where the browser keeps no apps
 */
export const keepInstalled = async ({
  workers,
  onReady,
  onElsewhere,
  flush,
  reload,
  every = HOUR,
}: InstalledParts): Promise<() => void> => {
  const registration = await workers.register('/sw.js', { updateViaCache: 'none' });
  // What it keeps is looked through once at each start: one wrong answer would else stay for good.
  registration.active?.postMessage('look through');
  let asked = false;
  let offered: unknown = null;
  const anew = () =>
    void flush()
      .catch(() => undefined)
      .then(reload);
  const offer = () => {
    const { waiting } = registration;
    // The first one of all takes nobody's place.
    if (!waiting || !workers.controller || offered === waiting) return;
    offered = waiting;
    onReady(() => {
      asked = true;
      waiting.postMessage('take over');
    });
  };
  registration.addEventListener('updatefound', () => {
    const { installing } = registration;
    installing?.addEventListener('statechange', () => {
      if (installing.state === 'installed') offer();
    });
  });
  let controlled = workers.controller !== null;
  workers.addEventListener('controllerchange', () => {
    if (asked) anew();
    else if (controlled) onElsewhere(anew);
    controlled = true;
  });
  offer();
  const timer = setInterval(() => void registration.update().catch(() => undefined), every);
  return () => clearInterval(timer);
};

export const reloadPage = (): void => window.location.reload();
