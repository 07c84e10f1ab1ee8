import { afterRenderEffect, ChangeDetectionStrategy, Component, DestroyRef, type ElementRef, inject, input, viewChild } from '@angular/core';
import type { Chart as ChartType } from 'chart.js';

/** One curve over the hours of a day, or over days. */
export interface Curve {
  readonly name: string;
  readonly color: string;
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly dash?: readonly number[];
  readonly width?: number;
  /** Fills down to the axis, or to the curve before. */
  readonly fill?: string;
  /** To which curve it fills, counted from this one; left out: to the axis. */
  readonly fillTo?: string;
}

/** Curves over the hours of a day, or over days, drawn by the chart library; the words beside it say the same. */
@Component({
  selector: 'yp-line-chart',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div class="relative h-full w-full"><canvas #canvas role="img" [attr.aria-label]="label()"></canvas></div>`,
  host: { class: 'block' },
})
export class LineChart {
  readonly curves = input.required<readonly Curve[]>();
  readonly label = input.required<string>();
  readonly unit = input.required<string>();
  /** What stands behind a figure on the lower axis, and how far apart its marks are. */
  readonly along = input<{ readonly unit: string; readonly step: number }>({ unit: 'h', step: 3 });
  readonly fromHour = input(4);
  readonly toHour = input(22);
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private chart: ChartType | null = null;
  private isGone = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => {
      this.isGone = true;
      this.chart?.destroy();
    });
    afterRenderEffect(() => void this.draw(this.curves(), this.canvas().nativeElement));
  }

  private async draw(curves: readonly Curve[], canvas: HTMLCanvasElement): Promise<void> {
    const { Chart, Filler, LinearScale, LineController, LineElement, PointElement } = await import('chart.js');
    // without a drawing surface the words beside the chart still say it all
    if (this.isGone || !canvas.getContext('2d')) return;
    Chart.register(Filler, LinearScale, LineController, LineElement, PointElement);
    const datasets = curves.map((c) => ({
      label: c.name,
      data: c.points.map((p) => ({ x: p.x, y: p.y })),
      borderColor: c.color,
      borderWidth: c.width ?? 2,
      borderDash: [...(c.dash ?? [])],
      pointRadius: 0,
      tension: 0.25,
      fill: c.fill ? { target: c.fillTo ?? 'origin', above: c.fill, below: c.fill } : false,
    }));
    if (this.chart) {
      this.chart.data.datasets = datasets;
      const x = this.chart.options.scales?.['x'];
      if (x) [x.min, x.max] = [this.fromHour(), this.toHour()];
      this.chart.update('none');
      return;
    }
    const ink = '#56626A';
    const font = { family: 'IBM Plex Mono', size: 12 };
    this.chart = new Chart(canvas, {
      type: 'line',
      data: { datasets },
      options: {
        animation: false,
        responsive: true,
        maintainAspectRatio: false,
        parsing: false,
        events: [],
        scales: {
          x: {
            type: 'linear',
            min: this.fromHour(),
            max: this.toHour(),
            ticks: { stepSize: this.along().step, color: ink, font, callback: (v) => `${v} ${this.along().unit}` },
            grid: { color: '#E6E0D0' },
            border: { color: ink },
          },
          y: {
            ticks: { maxTicksLimit: 5, color: ink, font, callback: (v) => `${v} ${this.unit()}` },
            grid: { color: '#E6E0D0' },
            border: { color: ink },
          },
        },
      },
    }) as unknown as ChartType;
  }
}
