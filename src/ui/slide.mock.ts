import { fireEvent, screen } from '@testing-library/react';

/** Sets a slider as a person does who wants an exact value: a double tap, the figure, Enter. */
export const slideTo = (name: string, value: number): void => {
  fireEvent.click(screen.getByRole('slider', { name }), { detail: 2 });
  const field = screen.getByRole('textbox', { name });
  fireEvent.change(field, { target: { value: String(value) } });
  fireEvent.keyDown(field, { key: 'Enter' });
};
