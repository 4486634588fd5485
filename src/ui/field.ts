import type * as Web from './field.web';

export const selectAllText: typeof Web.selectAllText = (input) =>
  input?.setNativeProps({ selectTextOnFocus: true });
export const selectAllOf: typeof Web.selectAllOf = () => undefined;
export const write: typeof Web.write = (input, text) => input?.setNativeProps({ text });
export const focusSlider: typeof Web.focusSlider = () => undefined;
export const isOnSlider: typeof Web.isOnSlider = () => false;
