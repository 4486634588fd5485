/** @jest-environment jsdom */
import { fireEvent, render, screen, within } from '@testing-library/react';
import { slideTo } from '../../ui/slide.mock';
import { Themed } from '../../ui/Themed';
import { KitScreen } from './KitScreen';

const part = (role: string, name: string | RegExp) => screen.getByRole(role, { name });
const isOn = (role: string, name: string, what: string) => part(role, name).getAttribute(`aria-${what}`);

describe.each(['night', 'day'] as const)('by %s', (theme) => {
  beforeEach(() => {
    render(
      <Themed theme={theme}>
        <KitScreen />
      </Themed>,
    );
  });

  test('buttons say whether they are on, and do nothing while they cannot', () => {
    fireEvent.click(part('button', 'Metronome'));
    expect(isOn('button', 'Metronome', 'pressed')).toBe('true');
    fireEvent.click(part('button', 'Pressed or not'));
    expect(isOn('button', 'Pressed or not', 'pressed')).toBe('false');
    expect(isOn('button', 'Undo', 'disabled')).toBe('true');
  });

  test('what is held is on for as long as a key is down on it', () => {
    const hold = part('button', 'Hold to hear it');
    fireEvent.keyDown(hold, { key: ' ' });
    expect(isOn('button', 'Hold to hear it', 'pressed')).toBe('true');
    fireEvent.keyUp(hold, { key: ' ' });
    expect(isOn('button', 'Hold to hear it', 'pressed')).toBe('false');
  });

  test('a box and a switch are turned, one of several is chosen by an arrow', () => {
    fireEvent.click(part('checkbox', 'Keep flams together'));
    expect(isOn('checkbox', 'Keep flams together', 'checked')).toBe('true');
    fireEvent.click(part('switch', 'Rain'));
    expect((part('switch', 'Rain') as HTMLInputElement).checked).toBe(false);
    const ferry = part('radio', 'Ferry');
    fireEvent.keyDown(ferry, { key: 'ArrowRight' });
    expect(isOn('radio', 'Tug', 'checked')).toBe('true');
    expect(document.activeElement).toBe(part('radio', 'Tug'));
    fireEvent.change(part('combobox', 'Boat for the song'), { target: { value: 'ferry' } });
    expect((part('combobox', 'Boat for the song') as HTMLSelectElement).value).toBe('ferry');
  });

  test('a slider goes by steps, by tens and to its ends, and says its unit', () => {
    const slider = () => part('slider', 'Swing of the kit');
    fireEvent.keyDown(slider(), { key: 'ArrowRight' });
    expect(slider().getAttribute('aria-valuetext')).toBe('59 %');
    fireEvent.keyDown(slider(), { key: 'PageUp' });
    expect(slider().getAttribute('aria-valuetext')).toBe('69 %');
    fireEvent.keyDown(slider(), { key: 'Home' });
    expect(slider().getAttribute('aria-valuetext')).toBe('50 %');
    slideTo('Swing of the kit', 62);
    expect(slider().getAttribute('aria-valuetext')).toBe('62 %');
  });

  test('a figure is typed and stepped; a name is left by Escape as it was', () => {
    const tempo = screen.getByLabelText('Tempo of the tide') as HTMLInputElement;
    fireEvent.keyDown(tempo, { key: 'ArrowUp' });
    expect(tempo.value).toBe('93');
    fireEvent.change(tempo, { target: { value: '120' } });
    fireEvent.keyDown(tempo, { key: 'Enter' });
    expect(tempo.value).toBe('120');
    const name = screen.getByLabelText('Name of the beat') as HTMLInputElement;
    fireEvent.change(name, { target: { value: 'Rain' } });
    fireEvent.keyDown(name, { key: 'Escape' });
    expect(name.value).toBe('Lantern Walk');
  });

  test('tabs are walked by arrows, and each names its page', () => {
    const tabs = within(part('tablist', 'Work on'));
    fireEvent.keyDown(tabs.getByRole('tab', { name: 'Hits' }), { key: 'ArrowRight' });
    expect(isOn('tab', 'Lane', 'selected')).toBe('true');
    expect(part('tabpanel', 'Lane').textContent).toBe('The page of lane.');
    fireEvent.keyDown(tabs.getByRole('tab', { name: 'Lane' }), { key: 'End' });
    expect(part('tabpanel', 'Sound')).toBeTruthy();
  });

  test('what is folded is not there until it is asked for', () => {
    expect(screen.queryByText('It stands here now.')).toBeNull();
    fireEvent.click(part('button', 'What is folded'));
    expect(screen.getByText('It stands here now.')).toBeTruthy();
    expect(isOn('button', 'What is folded', 'expanded')).toBe('true');
  });

  test('sheets and questions are dialogs with a name', () => {
    fireEvent.click(part('button', 'Open a sheet'));
    expect(part('dialog', 'A sheet').textContent).toContain('From below');
    fireEvent.click(within(part('dialog', 'A sheet')).getByRole('button', { name: 'Close' }));
    expect(screen.queryByRole('dialog', { name: 'A sheet' })).toBeNull();
    fireEvent.click(part('button', 'Ask something'));
    fireEvent.click(within(part('dialog', 'Leave the pier?')).getByRole('button', { name: 'Stay' }));
    expect(screen.queryByRole('dialog', { name: 'Leave the pier?' })).toBeNull();
  });

  test('tables, lists and what is going on are counted by ear', () => {
    const table = within(part('table', 'Lanes'));
    expect(table.getAllByRole('columnheader').map(({ textContent }) => textContent)).toEqual([
      'Lane',
      'Notes',
      'Stands',
    ]);
    expect(table.getByRole('row', { name: /^Snare 8 22 ms behind/ })).toBeTruthy();
    expect(within(part('list', 'Stalls')).getAllByRole('listitem')).toHaveLength(2);
    expect(isOn('progressbar', 'Files read', 'valuenow')).toBe('40');
    expect(part('region', 'What will be written').textContent).toContain('71 notes');
  });
});
