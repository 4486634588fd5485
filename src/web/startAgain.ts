declare global {
  interface Window {
    /** The app stands: what fails from now on is seen to by the app itself. */
    ruddikStands?: boolean;
  }
}

/** Where it is counted how often a page has been begun again. */
export const TRIES_KEY = 'ruddik/tries';

/**
 * Runs as text within the page, before any other code: it may use nothing from outside itself, and nothing that a compiler puts
 * helpers in for. Where one of the pieces that the app begins with does not come, or is no code, it is fetched past what the
 * browser has kept of it and the page begins again; after three times that is told.
 */
/* eslint-disable no-var */
export const startAgain = function (key: string, pieces: string, told: string, label: string): void {
  var over = false;
  addEventListener(
    'error',
    function (event: ErrorEvent) {
      var at = event.target as unknown as { tagName?: string; src?: string };
      var address = at && at.tagName === 'SCRIPT' ? at.src : event.filename;
      if (over || window.ruddikStands || !address || !new RegExp(pieces).test(address)) return;
      over = true;
      var tries = 0;
      try {
        tries = Number(sessionStorage.getItem(key)) || 0;
        sessionStorage.setItem(key, String(tries + 1));
      } catch {
        // Where nothing can be counted, a page that begins again and again would be worse than one that stands still.
        tries = 3;
      }
      var again = function () {
        location.reload();
      };
      if (tries < 3) {
        setTimeout(function () {
          fetch(address!, { cache: 'reload' }).then(again, again);
        }, 200 * tries);
        return;
      }
      var bar = document.createElement('div');
      bar.setAttribute('role', 'alert');
      bar.style.cssText =
        'position:fixed;left:0;right:0;bottom:0;z-index:9;padding:12px 16px;background:#17211F;color:#F3EFE6;font:16px sans-serif';
      bar.textContent = told + ' ';
      var button = document.createElement('button');
      button.textContent = label;
      button.style.cssText = 'min-height:44px;padding:0 16px;font:inherit';
      button.onclick = function () {
        try {
          sessionStorage.removeItem(key);
        } catch {
          // It is counted nowhere.
        }
        again();
      };
      bar.appendChild(button);
      document.body.appendChild(bar);
    },
    true,
  );
};

/** The app stands: the next page begins to count anew. */
export const stands = (): void => {
  window.ruddikStands = true;
  try {
    sessionStorage.removeItem(TRIES_KEY);
  } catch {
    // It is counted nowhere.
  }
};
