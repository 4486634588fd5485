/** What the browser has and jsdom lacks. */
if (typeof window !== 'undefined' && !window.PointerEvent) {
  window.PointerEvent = class PointerEvent extends MouseEvent {
    constructor(type, init = {}) {
      super(type, init);
      this.pointerId = init.pointerId;
      this.pointerType = init.pointerType;
    }
  };
  Element.prototype.scrollIntoView = () => undefined;
  Element.prototype.setPointerCapture = () => undefined;
  document.elementFromPoint ??= () => null;
}
if (typeof window !== 'undefined') {
  const { TextDecoder, TextEncoder } = require('node:util');
  window.TextEncoder ??= TextEncoder;
  window.TextDecoder ??= TextDecoder;
}
if (typeof window !== 'undefined') {
  // A narrow page, unless a test has it otherwise.
  window.matchMedia ??= () => ({
    matches: false,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    // What React Native for the web still calls.
    addListener: () => undefined,
    removeListener: () => undefined,
  });
  // React Native's styles are hundreds of rules, and jsdom goes through all of them for every element and each of its parents
  // when a role is looked for: minutes for one screen. What hides something here stands on the element itself.
  window.getComputedStyle = (element) => element.style;
}
if (typeof AbortSignal !== 'undefined') AbortSignal.timeout ??= () => new AbortController().signal;
