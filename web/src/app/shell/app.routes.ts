import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', title: 'Jobs', loadComponent: () => import('../stations/jobs/jobs-page').then((m) => m.JobsPage) },
  { path: 'films', title: 'Films', loadComponent: () => import('../stations/films/films-page').then((m) => m.FilmsPage) },
  { path: 'price', title: 'Price', loadComponent: () => import('../stations/price/price-page').then((m) => m.PricePage) },
  { path: 'stock', title: 'Stock', loadComponent: () => import('../stations/stock/stock-page').then((m) => m.StockPage) },
  { path: 'firm', title: 'Firm', loadComponent: () => import('../stations/firm/firm-page').then((m) => m.FirmPage) },
  { path: 'phones', title: 'Phones', loadComponent: () => import('../stations/phones/phones-page').then((m) => m.PhonesPage) },
  { path: 'call-backs', title: 'Call-backs', loadComponent: () => import('../stations/hand-over/call-backs-page').then((m) => m.CallBacksPage) },
  {
    path: 'jobs/:jobId',
    data: { preload: true },
    loadComponent: () => import('./workspace').then((m) => m.Workspace),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'measure' },
      {
        path: 'measure',
        title: 'Measure',
        data: { preload: true },
        loadComponent: () => import('../stations/measure/measure-page').then((m) => m.MeasurePage),
      },
      { path: 'choose', title: 'Choose', loadComponent: () => import('../stations/choose/choose-page').then((m) => m.ChoosePage) },
      { path: 'cut', title: 'Cut', loadComponent: () => import('../stations/cut/cut-page').then((m) => m.CutPage) },
      { path: 'prepare', title: 'Prepare', loadComponent: () => import('../stations/prepare/prepare-page').then((m) => m.PreparePage) },
      { path: 'lay', title: 'Lay', loadComponent: () => import('../stations/lay/lay-page').then((m) => m.LayPage) },
      { path: 'check', title: 'Check', loadComponent: () => import('../stations/check/check-page').then((m) => m.CheckPage) },
      { path: 'hand-over', title: 'Hand over', loadComponent: () => import('../stations/hand-over/hand-over-page').then((m) => m.HandOverPage) },
      { path: 'plotter', title: 'Plotter', loadComponent: () => import('../stations/cut/plotter-page').then((m) => m.PlotterPage) },
    ],
  },
  { path: '**', redirectTo: '' },
];
