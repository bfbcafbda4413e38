import { execFileSync } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

/* What walks do with a worksheet. */

export const open = (page: Page, short: string): Promise<void> =>
  page.getByRole('navigation', { name: 'Sections' }).getByRole('button', { name: short, exact: true }).click();
export const choose = (page: Page, group: string, option: string) =>
  page.getByRole('group', { name: group, exact: true }).getByRole('button', { name: option, exact: true }).click();
export const read = async (page: Page, id: string): Promise<string> => (await page.getByTestId(id).textContent())!;
export const cells = (page: Page, list: string) => page.getByRole('table', { name: list, exact: true }).locator('.data-body [role=row]'); // prettier-ignore

/** The project as a compute request, and what the command line answers to it with other queries. */
export async function answers(page: Page, file: string, more: object[] = []) {
  await page.locator('.project-button').click();
  await page.getByRole('menuitem', { name: 'Copy as a compute request' }).click();
  const request = JSON.parse(await page.evaluate(() => navigator.clipboard.readText())) as { queries: object[] };
  writeFileSync(file, JSON.stringify({ ...request, queries: [...request.queries, ...more] }));
  const out = execFileSync('node', ['bin/astrolabe.js', 'compute', file], { encoding: 'utf8', maxBuffer: 2 ** 26 });
  const { results } = JSON.parse(out) as { results: (Record<string, never> & { id: string })[] };
  return Object.fromEntries(results.map((one) => [one.id, one])) as Record<string, never>;
}
