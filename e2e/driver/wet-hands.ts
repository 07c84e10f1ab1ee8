import { expect, type Page } from '@playwright/test';
import type { JobDocument, LayEntry } from '@yellow-pane/contracts';
import { drawn } from './bench.js';
import type { BenchServer } from './server.js';

/** The Lay stage as a person on a ladder uses it. */
export class WetHands {
  constructor(
    readonly page: Page,
    private readonly server: BenchServer,
    private readonly jobId: string,
    /** Where this device finds the bench; none: it is the bench. */
    private readonly at: string | null = null,
  ) {}

  async open(): Promise<void> {
    await this.page.goto(`${this.at ?? this.server.url}/jobs/${this.jobId}/lay`);
    // pictures are taken with this too, where nobody has set a longer wait
    await expect(this.heading()).toBeVisible({ timeout: 45_000 });
  }
  heading() {
    return this.page.locator('main').getByRole('heading', { level: 2 }).first();
  }
  kept() {
    return this.page.locator('[data-kept]');
  }
  /** A drop of water, or a sleeve: a touch too short to count, timed in the page itself. */
  async brush(): Promise<void> {
    await this.page.locator('[data-done] button, [data-next] button').evaluate((button) => {
      const touch = (type: string) => button.dispatchEvent(new PointerEvent(type, { pointerId: 7, pointerType: 'touch', bubbles: true }));
      touch('pointerdown');
      return new Promise<void>((r) => setTimeout(() => (touch('pointerup'), r()), 150));
    });
  }
  /** Rests a finger on the big button for so long. */
  async hold(ms: number): Promise<void> {
    const button = this.page.locator('[data-done] button, [data-next] button');
    await button.waitFor();
    const box = (await button.boundingBox())!;
    await this.page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await this.page.mouse.down();
    await this.page.waitForTimeout(ms);
    await this.page.mouse.up();
  }
  /** Taps a pane done and waits until the next one is shown. */
  async done(pane: string): Promise<void> {
    await expect(this.page.getByRole('button', { name: `${pane} is done` })).toBeVisible();
    await this.hold(700);
    await expect(this.page.getByRole('button', { name: `${pane} is done` })).toBeHidden();
  }
  /** Goes through steps by their titles, each seen before it is ticked. */
  async walk(titles: readonly string[]): Promise<void> {
    for (const title of titles) {
      await expect(this.page.getByRole('heading', { level: 3 }).filter({ hasText: title })).toBeVisible();
      await this.hold(700);
    }
  }
  async goTo(pane: string): Promise<void> {
    await this.page.getByRole('button', { name: 'Panes', exact: true }).click();
    await this.page
      .locator('section[aria-label="All panes"]')
      .getByRole('button', { name: new RegExp(`^${pane}\\b`) })
      .click();
    await expect(this.heading()).toContainText(pane);
  }
  async delivered(): Promise<void> {
    await drawn(this.page);
    await expect(this.kept()).toContainText('all at the bench');
  }

  /** What the thermometer read on the edge in hand; its gun has to be away for a moment. */
  async reads(edge: string, tempC: string): Promise<void> {
    const field = this.page.getByLabel(`Film read at ${edge}`);
    await expect(field).toBeVisible();
    await expect(async () => {
      await field.fill(tempC);
      await field.press('Enter');
      await expect(this.page.locator('[data-heat-word]')).toContainText(`${edge}: ${tempC} °C`, { timeout: 800 });
    }).toPass({ timeout: 15_000 });
  }
  /** A step of heat is called done without a reading: a word of reason is asked for. */
  async unproven(reason: string): Promise<void> {
    await expect(this.page.locator('[data-unproven]')).toBeVisible();
    await this.page.getByRole('button', { name: reason }).click();
    await expect(this.page.locator('[data-unproven]')).toHaveCount(0);
  }

  /** The log as the bench holds it, oldest first. */
  async log(): Promise<LayEntry[]> {
    return (await this.server.get<JobDocument>(`/api/jobs/${this.jobId}`)).layEntries;
  }
  /** Panes tapped done, in the order they came in. */
  async laid(): Promise<string[]> {
    const doc = await this.server.get<JobDocument>(`/api/jobs/${this.jobId}`);
    return doc.layEntries.filter((e) => e.kind === 'pane-done').map((e) => doc.surfaces.find((s) => s.id === e.surfaceId)!.name);
  }
}
