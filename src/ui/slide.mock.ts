import { fireEvent, screen } from '@testing-library/react';

/** Sets a slider as a person does who wants an exact value: a double tap, the figure, Enter. */
export const slideTo = (name: string, value: number): void => {
  fireEvent.click(screen.getByRole('slider', { name }), { detail: 2 });
  const field = screen.getByRole('textbox', { name });
  fireEvent.change(field, { target: { value: String(value) } });
  fireEvent.keyDown(field, { key: 'Enter' });
};

/** The first figure of what is said of a slider, or NaN: kilohertz in hertz, what is to the left below zero. */
const figureSaid = (text: string): number => {
  // What stands in brackets is how many there are.
  const found = /[-−]?\d+(\.\d+)?/.exec(text.replace(/\(.*\)/, ''));
  if (!found) return NaN;
  const size = Number(found[0].replace('−', '-')) * (/kHz/.test(text) ? 1000 : 1);
  return / L$/.test(text) ? -size : size;
};

/**
 * Opens every slider that there is for typing, and leaves it again.
 *
 * @returns those whose field shows another figure than is said, or that Escape did not leave as they were
 */
export const typedOtherwise = (): string[] =>
  screen.getAllByRole('slider').flatMap((slider) => {
    const name = slider.getAttribute('aria-label')!;
    const said = slider.getAttribute('aria-valuetext') ?? '';
    fireEvent.click(slider, { detail: 2 });
    const field = screen.queryByRole<HTMLInputElement>('textbox', { name });
    if (!field) return [];
    const { value } = field;
    const typed = Number(value);
    fireEvent.change(field, { target: { value: '1' } });
    fireEvent.keyDown(field, { key: 'Escape' });
    const left = screen.getByRole('slider', { name }).getAttribute('aria-valuetext');
    // What is said is rounded, to the hertz, the tenth of a kilohertz or the whole per cent.
    const near = Math.abs(typed - figureSaid(said)) <= (/kHz/.test(said) ? 51 : 0.51);
    return left === said && (near || value === said || Number.isNaN(figureSaid(said)))
      ? []
      : [`${name}: ${said}, ${typed}, ${left}`];
  });
