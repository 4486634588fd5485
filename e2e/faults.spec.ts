/** A short part of what is tried at length: pages left, tabs at once, a storage that fails. */
import { expect, test } from '@playwright/test';
import { failing, leaving } from '../faults/browser';
import { tabs } from '../faults/tabs';

test.setTimeout(120000);

test('an edit outlives the page, however it is left', async ({ context, baseURL }) => {
  expect((await leaving(context, baseURL!, 9)).faults).toEqual([]);
});

test('three tabs at once lose nothing and show the same', async ({ browser, baseURL }) => {
  expect((await tabs(browser, baseURL!, 3, 90)).faults).toEqual([]);
});

test('a database closed underneath, and site data barred', async ({ context, baseURL }) => {
  expect((await failing(context, baseURL!)).faults).toEqual([]);
});
