/** @jest-environment jsdom */
// First: what it stands in for is not loaded before.
import {
  beat,
  choose,
  feel,
  fileOf,
  give,
  look,
  mockSaved,
  notices,
  openFeel,
  page,
  press,
  slide,
  tick,
} from './feel.mock';
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import { TEMPLATES } from '../../../core/feel/templates';
import { writeTemplate } from '../../../core/feel/templateText';
import { templateMidi } from '../../../core/midi/convert/templateMidi';
import { beatEdited, redone, undone } from '../../store/doc';
import { store } from '../../keeping/session';
import { words } from '../../words/players';
import { typedOtherwise } from '../../ui/slide.mock';
import { loadEdits } from '../../store/deferredEdits';

beforeAll(loadEdits);

// The whole screen is rendered, which takes a busy machine its time.
jest.setTimeout(240000);

beforeEach(openFeel);

describe('the stages', () => {
  test('stand in their order, each with a switch and a line that says what it does', () => {
    const names = screen.getAllByRole('switch').map((one) => one.getAttribute('aria-label'));
    expect(names).toEqual([
      'Quantize takes part',
      'Base feel takes part',
      'Stagger takes part',
      'Ahead and behind takes part',
      'Dynamics takes part',
      'Humanize takes part',
    ]);
    fireEvent.click(screen.getByRole('switch', { name: 'Base feel takes part' }));
    expect(feel().off).toEqual(['base']);
    expect(screen.getByRole('button', { name: /Base feel/ }).textContent).toContain('Bypassed');
    fireEvent.click(screen.getByRole('switch', { name: 'Base feel takes part' }));
    expect(feel().off).toEqual([]);
  });

  test('swing says percent, ratio and delay; its marks are one tap, its grid another', () => {
    press('Swing of all lanes: triplet');
    expect(feel().swing.percent).toBeCloseTo(66.67, 2);
    press('Swing of all lanes on eighths');
    expect(feel().swing.grid).toBe('1/8');
    expect(screen.getByRole('button', { name: /Base feel/ }).textContent).toContain(
      'Swing 66.67 % on eighths',
    );
    expect(screen.getByText(/2\.00 to 1, every second one \d+ ms late/)).toBeTruthy();
  });

  test('what is typed on any slider is in the unit that it shows', () => {
    const before = feel();
    expect(typedOtherwise()).toEqual([]);
    expect(feel()).toBe(before);
  });

  test('a key that is held is one step of the history, as a drag is', () => {
    const before = feel().swing.percent;
    const slider = screen.getByRole('slider', { name: 'Swing of all lanes' });
    for (const repeat of [false, true, true]) fireEvent.keyDown(slider, { key: 'PageDown', repeat });
    const after = feel().swing.percent;
    expect(after).toBeLessThan(before - 5);
    act(() => void store.dispatch(undone()));
    expect(feel().swing.percent).toBe(before);
    act(() => void store.dispatch(redone()));
    expect(feel().swing.percent).toBe(after);
  });

  test('the hinge on the strings turns the swing by keys', () => {
    press('Swing of all lanes: septuplet');
    const hinge = screen.getByRole('slider', { name: 'Swing hinge' });
    fireEvent.keyDown(hinge, { key: 'ArrowRight' });
    expect(feel().swing.percent).toBe(57.64);
    expect(hinge.getAttribute('aria-valuetext')).toBe('57.64 %');
    press('Straight');
    expect(screen.queryByRole('slider', { name: 'Swing hinge' })).toBeNull();
  });

  test('swing goes below 50, and with the tempo', () => {
    press('Swing of all lanes: septuplet');
    slide('Swing of all lanes', 46);
    expect(feel().swing.percent).toBe(46);
    expect(screen.getByText(/^early: 0\.85 to 1, every second one \d+ ms early/)).toBeTruthy();
    press('Swing of all lanes: with the tempo');
    expect(feel().swing.withTempo).toBe(1);
    expect(screen.getByText(/^At 100 BPM 75 %, dotted/)).toBeTruthy();
    slide('Swing of all lanes: amount with the tempo', 50);
    expect(feel().swing.withTempo).toBe(0.5);
    slide('Swing of all lanes', 60);
    expect(feel().swing).not.toHaveProperty('withTempo');
  });

  test('what is used on a stage that is passed by is heard', () => {
    fireEvent.click(screen.getByRole('switch', { name: 'Base feel takes part' }));
    expect(feel().off).toContain('base');
    page('Templates');
    press(`Use ${TEMPLATES[0]!.name}`);
    expect(feel().off).not.toContain('base');
  });

  test('a template in use goes with its editing', () => {
    page('Templates');
    press(`Copy to edit it: ${TEMPLATES[0]!.name}`);
    const own = beat().templates[0]!;
    press(`Use ${own.name}`);
    press(`Edit ${own.name}`);
    fireEvent.keyDown(screen.getByRole('slider', { name: 'Slot 1' }), { key: 'ArrowRight' });
    expect(beat().templates[0]!.slots[0]!.offset).not.toBe(own.slots[0]!.offset);
    expect(feel().template.template).toBe(beat().templates[0]);
  });

  test('an offset that was typed goes on from there by the arrows', () => {
    press(/^Ahead and behind/);
    const field = screen.getByLabelText('Offset of Kick');
    fireEvent.change(field, { target: { value: '100' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    const slider = screen.getByRole('slider', { name: 'Kick ahead or behind' });
    expect(slider.getAttribute('aria-valuenow')).toBe('100');
    expect(slider.getAttribute('aria-valuemax')).toBe('100');
    press('All on time');
  });

  test('a blend is told where the stages are', () => {
    const { blend: _, ...plain } = feel();
    act(
      () =>
        void store.dispatch(
          beatEdited({
            edit: {
              edit: 'setBlend',
              args: { patternId: 'a', blend: { with: plain, name: 'Late', amount: 0.25 } },
            },
          }),
        ),
    );
    expect(screen.getByText(/You hear a blend: 75 % of this feel.* 25 % of “Late”/)).toBeTruthy();
    press('Only this feel');
    expect(feel()).not.toHaveProperty('blend');
  });

  test('a lane has a swing of its own, gives it to its family, and follows all lanes again', () => {
    look({ openLane: 'hat.closed' });
    choose('Base feel of Closed hat', 'swing');
    slide('Swing of Closed hat', 64);
    expect(feel().lanes['hat.closed']).toMatchObject({ base: 'swing', swing: { percent: 64 } });
    press('The same for all hats');
    expect(feel().lanes['hat.open']).toMatchObject({ base: 'swing', swing: { percent: 64 } });
    expect(feel().lanes['snare']).toBeUndefined();
    choose('Base feel of Closed hat', 'all');
    expect(feel().lanes['hat.closed']).toBeUndefined();
  });

  test('quantize: grid, strength, window, flams, and lanes chosen one by one', () => {
    press(/^Quantize/);
    choose('Quantize grid', '1/8T');
    slide('Quantize strength', 50);
    slide('Quantize window', 50);
    tick('Keep flams together');
    press('For all lanes');
    tick('Quantize Kick');
    expect(feel().quantize).toMatchObject({ grid: '1/8T', strength: 0.5, window: 0.5, flams: false });
    expect(feel().quantize.lanes).not.toContain('kick');
    expect(screen.getByText(/Only hits within 25 % of a step/)).toBeTruthy();
    tick('Quantize Kick');
    expect(feel().quantize.lanes).toBeNull();
  });

  test('ahead and behind: dragged, typed, held to its range, and all put on time', () => {
    press(/^Ahead and behind/);
    slide('Snare ahead or behind', 9);
    expect(feel().lanes['snare']).toEqual({ offset: 9 });
    expect(screen.getByRole('button', { name: /Ahead and behind/ }).textContent).toContain(
      'Snare 9 ms behind',
    );
    const field = screen.getByLabelText('Offset of Kick');
    fireEvent.change(field, { target: { value: '-400' } });
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(feel().lanes['kick']).toEqual({ offset: -100 });
    expect(notices()).toContain('Offset of Kick runs from -100 to 100: -400 became -100.');
    press('All on time');
    expect(feel().lanes).toEqual({});
  });

  test('dynamics: contrast and level of a lane, the level of the kit', () => {
    press(/^Dynamics/);
    slide('Kick contrast', 50);
    slide('Kick level', 120);
    slide('Level of the kit', 80);
    expect(feel().lanes['kick']).toEqual({ contrast: 0.5, level: 1.2 });
    expect(feel().level).toBe(0.8);
    expect(screen.getByRole('button', { name: /Dynamics/ }).textContent).toContain('The kit at 80 %');
    press('All as they are');
    expect(feel().lanes).toEqual({});
  });

  test('humanize: said in plain words; every take is kept and can be had back', () => {
    press(/^Humanize/);
    slide('Timing spread', 5);
    expect(screen.getByText('A tight session player: 3 to 6 ms.')).toBeTruthy();
    slide('Timing spread', 25);
    expect(screen.getByText('Sloppy to most ears: above 20 ms.')).toBeTruthy();
    const { seed } = feel().humanize;
    press('Another take');
    const other = feel().humanize.seed;
    expect(other).not.toBe(seed);
    press('Previous take');
    expect(feel().humanize.seed).toBe(seed);
    expect(feel().humanize.takes).toEqual([seed, other]);
    press('Next take');
    expect(feel().humanize.seed).toBe(other);
    tick('New on each pass');
    expect(feel().humanize.anew).toBe(true);
    look({ openLane: 'kick' });
    slide('Share of the timing spread of Kick', 0);
    slide('How much of the kit’s drift Kick shares', 25);
    expect(feel().lanes['kick']).toEqual({ timing: 0, shares: 0.25 });
    slide('Soft strokes looser', 50);
    expect(feel().humanize.soft).toBe(0.5);
    slide('Soft strokes looser', 0);
    expect(feel().humanize).not.toHaveProperty('soft');
  });

  test('players: chosen, begun with a band, turned, drawn to one another; what comes out is said, attention is held', () => {
    press(/^Humanize/);
    fireEvent.click(screen.getByRole('radio', { name: 'Players who follow one another' }));
    const band = () => feel().humanize.band!;
    expect(band()).toMatchObject({ on: true, tempo: false });
    // Each source of timing has its own: back is as before, and forth too.
    const from = (name: string) => fireEvent.click(screen.getByRole('radio', { name }));
    expect(feel().humanize.anew).toBe(true);
    from('Each drum by itself');
    expect(feel().humanize.anew).toBe(false);
    act(() => void store.dispatch(undone()));
    expect(feel().humanize).toMatchObject({ anew: true, band: { on: true } });
    act(() => void store.dispatch(redone()));
    tick('New on each pass');
    from('Players who follow one another');
    fireEvent.click(screen.getByRole('checkbox', { checked: true, name: words.runsOn }));
    from('Each drum by itself');
    expect(feel().humanize.anew).toBe(true);
    from('Players who follow one another');
    expect(feel().humanize.anew).toBe(false);
    expect(
      band()
        .players.flatMap(({ lanes }) => lanes)
        .sort(),
    ).toEqual(
      beat()
        .lanes.map(({ id }) => id)
        .sort(),
    );
    const out = () => screen.getByText(/^What comes out/).textContent;
    const tight = out();
    fireEvent.change(screen.getByLabelText('Begin with a band'), { target: { value: 'apart' } });
    expect(out()).not.toBe(tight);
    expect(out()).toMatch(/sloppy/);
    slide('Touch of Kick', 3);
    expect(band().players[0]!.touch).toBe(3);
    slide('How much Kick goes by the click', 90);
    slide('How much Kick follows Snare', 60);
    const [kick] = band().players;
    expect(kick!.follows['snare']).toBeCloseTo(0.6);
    expect(Object.values(kick!.follows).reduce((sum, x) => sum + x, kick!.click)).toBeLessThanOrEqual(1.0001);
    expect(screen.getByText(/All its attention is taken/)).toBeTruthy();
    tick('The click follows the band');
    expect(band().tempo).toBe(true);
    look({ openLane: 'kick' });
    fireEvent.change(screen.getByLabelText('Who plays Kick'), { target: { value: 'snare' } });
    expect(band().players.find(({ lanes }) => lanes.includes('kick'))!.id).toBe('snare');
    fireEvent.click(screen.getByRole('radio', { name: 'Each drum by itself' }));
    // Switched off they are kept.
    expect(band()).toMatchObject({ on: false, tempo: true });
  });
});

describe('templates', () => {
  test('one of the library is used, its amounts set, and copied to be edited', () => {
    page('Templates');
    const { name, id } = TEMPLATES[3]!;
    press(`Use ${name}`);
    expect(feel()).toMatchObject({ base: 'template', template: { template: { id } } });
    press(`Copy to edit it: ${name}`);
    expect(beat().templates[0]).toMatchObject({ name: `${name} 2` });
    press(`Edit ${name} 2`);
    const slot = screen.getByRole('slider', { name: 'Slot 3' });
    const before = beat().templates[0]!.slots[2]!;
    fireEvent.keyDown(slot, { key: 'ArrowRight' });
    expect(beat().templates[0]!.slots[2]!.offset).toBeCloseTo(before.offset + 0.01, 6);
    fireEvent.keyDown(slot, { key: 'Delete' });
    expect(beat().templates[0]!.slots[2]).toBeNull();
    page('Stages');
    slide('Template of all lanes: timing', 150);
    expect(feel().template.timing).toBe(1.5);
  });

  test('taken from the pattern or one of its families, odd notes left out, named, kept, saved both ways', () => {
    page('Templates');
    press('From A');
    expect(screen.getByText(/^40 of 40 notes/)).toBeTruthy();
    choose('Lanes of the template', 'group hat');
    expect(screen.getByText(/^28 of 28 notes/)).toBeTruthy();
    fireEvent.click(document.querySelector('.dots circle')!);
    expect(screen.getByText(/^27 of 28 notes/)).toBeTruthy();
    press('Take all back');
    fireEvent.change(screen.getByLabelText('Name of the template'), { target: { value: 'Wet planks' } });
    press('Keep it');
    const kept = beat().templates[0]!;
    expect(kept.name).toBe('Wet planks');
    expect(kept.slots.filter(Boolean)).toHaveLength(28);
    press('Save Wet planks as a file');
    press('Save Wet planks as a MIDI file');
    expect(mockSaved.map(([name]) => name)).toEqual(['Wet-planks.template.json', 'Wet-planks.mid']);
    press('Drop Wet planks');
    expect(beat().templates).toEqual([]);
    expect(notices().at(-1)).toContain('Undo brings it back');
  });

  test('files: a template, a MIDI file, several averaged; a fault is said with its slot', async () => {
    page('Templates');
    const [one, two] = TEMPLATES;
    give('Open templates', [
      fileOf('one.json', writeTemplate(one!)),
      fileOf('two.json', writeTemplate(two!)),
    ]);
    await waitFor(() => expect(beat().templates).toHaveLength(2));
    tick(`Choose ${one!.name} to be averaged`);
    tick(`Choose ${two!.name} to be averaged`);
    press('Average 2 into one');
    const mean = beat().templates[2]!;
    expect(mean.slots[4]!.offset).toBeCloseTo((one!.slots[4]!.offset + two!.slots[4]!.offset) / 2, 6);
    const broken = { ...JSON.parse(writeTemplate(one!)), slots: [{ offset: 3, velocity: 0.5 }] };
    give('Open templates', [fileOf('broken.json', JSON.stringify(broken))]);
    await waitFor(() => expect(notices().at(-1)).toMatch(/broken\.json could not be read.*slot/i));
    expect(beat().templates).toHaveLength(3);
    give('Take a template from a MIDI file', [fileOf('slots.mid', templateMidi(one!))]);
    await waitFor(() => expect(screen.getByText('Template from slots')).toBeTruthy());
    press('Cancel');
    give('Take a template from a MIDI file', [fileOf('noise.mid', 'no MIDI at all')]);
    await waitFor(() => expect(notices().at(-1)).toContain('noise.mid could not be read.'));
  });
});

describe('feels as a whole', () => {
  test('kept by name, used, blended as B, dropped; of the beat or of the pattern alone', () => {
    slide('Swing of all lanes', 66);
    page('Feels');
    fireEvent.change(screen.getByLabelText('Name of this feel'), { target: { value: 'Late boat' } });
    press('Keep it');
    page('Stages');
    press('Straight');
    page('Feels');
    press('Late boat as B');
    slide('Blend from this feel to Late boat', 50);
    expect(feel().blend).toMatchObject({ name: 'Late boat', amount: 0.5 });
    press('Only A');
    expect(feel().blend).toBeUndefined();
    press('Use Late boat');
    expect(feel()).toMatchObject({ base: 'swing', swing: { percent: 66 } });
    press('Only of A');
    expect(beat().patterns[0]!.feel).toBeTruthy();
    press('The beat’s');
    expect(beat().patterns[0]!.feel).toBeUndefined();
    press('Drop Late boat');
    expect(beat().feels).toEqual([]);
  });

  test('copied and used again', () => {
    slide('Swing of all lanes', 70);
    page('Feels');
    press('Copy this feel');
    page('Stages');
    slide('Swing of all lanes', 50);
    page('Feels');
    press('Use the copied feel');
    expect(feel().swing.percent).toBe(70);
  });

  test('written in: hits stand where they sounded, the feel is straight, undo takes it out', () => {
    press('Swing of all lanes: triplet');
    page('Feels');
    press('Write in all lanes');
    const hat = beat().patterns[0]!.parts['hat.closed']!.hits.find(({ step }) => step === 3)!;
    expect(hat.nudge).toBeCloseTo(1 / 3, 2);
    expect(feel().swing.percent).toBe(50);
    act(() => void store.dispatch(undone()));
    expect(feel().swing.percent).toBeCloseTo(66.67, 2);
  });
});
