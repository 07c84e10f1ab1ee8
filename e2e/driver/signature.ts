import type { Page } from '@playwright/test';

/** Draws a line on the field where a customer signs, as a finger would. */
export async function drawSignature(page: Page): Promise<void> {
  const pad = page.getByLabel('Sign here');
  await pad.scrollIntoViewIfNeeded();
  const box = (await pad.boundingBox())!;
  await page.mouse.move(box.x + 30, box.y + 60);
  await page.mouse.down();
  for (let i = 0; i < 8; i++) await page.mouse.move(box.x + 40 + i * 20, box.y + 60 + (i % 2 ? 20 : -20));
  await page.mouse.up();
}
