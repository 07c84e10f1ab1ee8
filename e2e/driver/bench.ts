import { expect, type Page } from '@playwright/test';

/** Waits until what is already on its way to the screen is drawn, so that nothing is read off the screen of before. */
export async function drawn(page: Page): Promise<void> {
  await page.evaluate(() => new Promise((r) => setTimeout(() => requestAnimationFrame(() => setTimeout(r)))));
}

/** Waits until every file of the app is kept on this device (the service worker fetches them when the page has been quiet for a while), so that it opens in a dead spot. */
export async function readyForDeadSpot(page: Page): Promise<void> {
  await expect
    .poll(
      () =>
        page.evaluate(async () => {
          await navigator.serviceWorker.ready;
          const manifest = (await (await fetch('/ngsw.json', { cache: 'no-store' })).json()) as { assetGroups: { urls: string[] }[] };
          const kept = await Promise.all((await caches.keys()).map(async (name) => (await caches.open(name)).keys()));
          const paths = new Set(kept.flat().map((r) => new URL(r.url).pathname));
          return manifest.assetGroups.flatMap((g) => g.urls).filter((url) => !paths.has(url));
        }),
      { timeout: 120_000 },
    )
    .toEqual([]);
}

/** The app in the installer's verbs. */
export class Bench {
  constructor(
    readonly page: Page,
    private readonly url: string,
  ) {}

  async openJobs(): Promise<void> {
    await this.page.goto(this.url);
    await expect(this.page.getByRole('heading', { name: 'Jobs' })).toBeVisible();
  }
  async openJob(name: string): Promise<void> {
    await this.openJobs();
    await this.page.getByRole('list').getByRole('link', { name }).click();
    await expect(this.page.getByRole('heading', { name, level: 1 })).toBeVisible();
  }
  async pick(pane: string): Promise<void> {
    await this.page.locator(`[data-surface="${pane}"]`).click();
    await expect(this.page.getByRole('heading', { name: pane, level: 2, exact: true })).toBeVisible();
  }
  async goTo(stage: 'Measure' | 'Choose' | 'Cut' | 'Prepare' | 'Lay' | 'Check' | 'Hand over'): Promise<void> {
    await this.page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: stage }).click();
  }
  /** The field on the edge that a measure belongs to. */
  field(measure: string) {
    return this.page.locator(`[data-measure="${measure}"] input`);
  }
  /** Types a tape, goes on with Enter, and waits until the server has acknowledged it. */
  async tape(measure: string, typed: string): Promise<void> {
    await this.field(measure).fill(typed);
    const acknowledged = this.page.waitForResponse(
      (r) => r.url().endsWith('/changes') && r.ok() && (r.request().postData() ?? '').includes('"kind":"reading"'),
    );
    await this.field(measure).press('Enter');
    await acknowledged;
    await this.saved();
  }
  /** What was just done is at the bench: the words of before it are given time to go first. */
  async saved(): Promise<void> {
    await drawn(this.page);
    await expect(this.page.getByRole('status').filter({ hasText: 'saved' })).toBeVisible();
  }
  verdict() {
    return this.page.locator('[data-verdict]');
  }
  /** Films judged for the pane at hand, best first. */
  candidates() {
    return this.page.locator('[data-candidates] > li');
  }
  /** A roll or leftover as the Cut page shows it. */
  roll(label: string) {
    return this.page.locator(`[data-roll="${label}"]`);
  }
  async openTab(name: 'Methods' | 'Seams' | 'Design' | 'What it costs' | 'Piece in hand'): Promise<void> {
    await this.page.getByRole('tab', { name }).click();
  }
  candidate(film: string) {
    return this.candidates().filter({ hasText: film });
  }
  knifeOrder() {
    return this.page.locator('[data-knife-order] li[data-step]');
  }
  /** Waits until the layout of the film at hand has come to rest and is stored. */
  async planSettled(): Promise<void> {
    await this.saved();
    await expect(this.page.locator('[data-knife-order][aria-busy="false"]')).toBeVisible();
    await expect(this.knifeOrder().first().getByRole('checkbox')).toBeEnabled({ timeout: 45_000 });
    await this.saved();
  }
}
