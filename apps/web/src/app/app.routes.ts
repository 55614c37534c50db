import type { Routes } from '@angular/router';

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    loadComponent: () => import('./studies/studies').then((m) => m.Studies),
    title: 'Studies · Pebble Thread',
  },
  {
    path: 'studies/:study',
    loadComponent: () => import('./shell/study-frame').then((m) => m.StudyFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'gather' },
      {
        path: 'gather',
        loadComponent: () => import('./gather/gather').then((m) => m.Gather),
        title: 'Gather · Pebble Thread',
      },
      {
        path: 'tidy',
        loadComponent: () => import('./tidy/tidy').then((m) => m.Tidy),
        title: 'Tidy · Pebble Thread',
      },
      {
        path: 'weave',
        loadComponent: () => import('./weave/weave').then((m) => m.Weave),
        title: 'Weave · Pebble Thread',
      },
      {
        path: 'map',
        loadComponent: () => import('./map/map-screen').then((m) => m.MapScreen),
        title: 'Map · Pebble Thread',
      },
      {
        path: 'map/:network',
        loadComponent: () => import('./map/map-screen').then((m) => m.MapScreen),
        title: 'Map · Pebble Thread',
      },
      {
        path: 'publish/:network',
        loadComponent: () => import('./publish/publish').then((m) => m.Publish),
        title: 'Publish · Pebble Thread',
      },
      {
        path: 'publish',
        loadComponent: () => import('./publish/publish').then((m) => m.Publish),
        title: 'Publish · Pebble Thread',
      },
      {
        path: 'logbook',
        loadComponent: () => import('./logbook/logbook').then((m) => m.Logbook),
        title: 'Logbook · Pebble Thread',
      },
    ],
  },
  { path: '**', redirectTo: '' },
];
