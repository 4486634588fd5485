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
if (typeof AbortSignal !== 'undefined') AbortSignal.timeout ??= () => new AbortController().signal;
