/** A folder that is kept in step: the browser's own private one stands for it, which speaks as all others do. */
import { expect, test, type Page } from '@playwright/test';
import { button, openApp, setField } from './app';

/** The files of the folder, and what is in them. */
const filesOf = (page: Page, within?: string): Promise<Record<string, string>> =>
  page.evaluate(async (sub) => {
    const quay = await (await navigator.storage.getDirectory()).getDirectoryHandle('quay');
    const folder = sub ? await quay.getDirectoryHandle(sub) : quay;
    const all: Record<string, string> = {};
    for await (const [name, entry] of (
      folder as unknown as { entries: () => AsyncIterable<[string, FileSystemFileHandle]> }
    ).entries())
      if (entry.kind === 'file') all[name] = await (await entry.getFile()).text();
    return all;
  }, within);
const writeFile = (page: Page, file: string, text: string): Promise<void> =>
  page.evaluate(
    async ([name, content]) => {
      const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('quay');
      const stream = await (await folder.getFileHandle(name!, { create: true })).createWritable();
      await stream.write(content!);
      await stream.close();
    },
    [file, text],
  );

const removeFile = (page: Page, file: string): Promise<void> =>
  page.evaluate(
    async (name) =>
      (await (await navigator.storage.getDirectory()).getDirectoryHandle('quay')).removeEntry(name),
    file,
  );

test('every beat is a file of the folder; what changes there comes here, changed on both sides it stands side by side', async ({
  page,
}) => {
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('quay', { create: true }),
    });
  });
  await openApp(page);
  await button(page, 'Beats').click();
  await button(page, 'Keep a folder in step').click();
  await expect(page.getByText(/beats are the same on both sides\./)).toBeVisible();
  const first = await filesOf(page);
  expect(Object.keys(first)).toContain('Lantern-Walk.ruddik.json');

  // Changed there alone: it comes here.
  await writeFile(
    page,
    'Rain-on-Tarps.ruddik.json',
    first['Rain-on-Tarps.ruddik.json']!.replace('"tempo": 124', '"tempo": 131'),
  );
  await button(page, 'Bring in step now').click();
  await expect(page.getByText(/^131 BPM/).first()).toBeVisible();

  // Changed on both sides: both are kept.
  await writeFile(
    page,
    'Lantern-Walk.ruddik.json',
    first['Lantern-Walk.ruddik.json']!.replace('"tempo": 92', '"tempo": 99'),
  );
  await setField(page, 'Tempo', '85');
  await button(page, 'Bring in step now').click();
  await expect(
    page.getByText('“Lantern Walk” changed both here and in the folder.', { exact: false }),
  ).toBeVisible();
  await expect(page.getByText(/^99 BPM/).first()).toBeVisible();
  await expect(page.getByText(/^85 BPM/).first()).toBeVisible();
  expect(Object.keys(await filesOf(page))).toEqual(
    expect.arrayContaining(['Lantern-Walk.ruddik.json', 'Lantern-Walk 2.ruddik.json']),
  );

  // Told apart here; in the folder each has its own name.
  await expect(button(page, 'Open Lantern Walk (from the folder)')).toBeVisible();
  expect(Object.values(await filesOf(page)).join('')).not.toContain('from the folder');

  // Deleted here: its file is put away; undone, it is written again.
  await button(page, 'Delete Stall Nineteen').click();
  await button(page, 'Bring in step now').click();
  await expect(
    page.getByText('The file of “Stall Nineteen” went to the folder’s subfolder “deleted”.'),
  ).toBeVisible();
  expect(Object.keys(await filesOf(page))).not.toContain('Stall-Nineteen.ruddik.json');
  expect(Object.keys(await filesOf(page, 'deleted'))).toEqual(['Stall-Nineteen.ruddik.json']);
  await button(page, 'Undo delete').click();
  await button(page, 'Bring in step now').click();
  await expect.poll(async () => Object.keys(await filesOf(page))).toContain('Stall-Nineteen.ruddik.json');

  // Gone there without a word: asked, and written again where it is wanted.
  await removeFile(page, 'Stall-Nineteen.ruddik.json');
  await button(page, 'Bring in step now').click();
  await expect(page.getByText('The file of “Stall Nineteen” is no longer in “quay”.')).toBeVisible();
  await expect(button(page, 'Open Stall Nineteen')).toBeVisible();
  await button(page, 'Keep, write again').click();
  await expect.poll(async () => Object.keys(await filesOf(page))).toContain('Stall-Nineteen.ruddik.json');

  // Renamed here: its file takes the name.
  await button(page, 'Rename Stall Nineteen').click();
  await setField(page, 'Name', 'Late Stall');
  await button(page, 'Bring in step now').click();
  await expect.poll(async () => Object.keys(await filesOf(page))).toContain('Late-Stall.ruddik.json');
  expect(Object.keys(await filesOf(page))).not.toContain('Stall-Nineteen.ruddik.json');

  // It is remembered, and let go.
  await page.reload();
  await expect(page.getByText(/^In step with the folder/)).toBeVisible({ timeout: 15000 });
  await button(page, 'Let the folder go').click();
  await expect(button(page, 'Keep a folder in step')).toBeVisible();
});
