import { inject } from '@angular/core';
import type { Routes, UrlMatcher } from '@angular/router';
import { Notices } from './store/notices';

/** A page whose program does not come, since the application was ended or this browser has no key any more, is not left out silently. */
export const notLoaded = (): void =>
  inject(Notices).withReload(
    'This page could not be loaded. If Pebble Thread was ended, start it again, then reload.',
  );

/** One route with and without a network, so that the screen stays, with the focus on it, when its network comes into the address. */
const withNetwork =
  (stop: string): UrlMatcher =>
  (segments) => {
    const [first, network] = segments;
    if (first?.path !== stop || segments.length > 2) return null;
    return network ? { consumed: segments, posParams: { network } } : { consumed: segments };
  };

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    loadComponent: () => import('./studies/studies').then((m) => m.Studies),
    title: 'Studies',
  },
  {
    path: 'studies/:study',
    loadComponent: () => import('./shell/study-frame').then((m) => m.StudyFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'gather' },
      {
        path: 'gather',
        loadComponent: () => import('./gather/gather').then((m) => m.Gather),
        title: 'Gather',
      },
      {
        path: 'tidy',
        loadComponent: () => import('./tidy/tidy').then((m) => m.Tidy),
        title: 'Tidy',
      },
      {
        path: 'weave',
        loadComponent: () => import('./weave/weave').then((m) => m.Weave),
        title: 'Weave',
      },
      {
        matcher: withNetwork('map'),
        loadComponent: () => import('./map/map-screen').then((m) => m.MapScreen),
        title: 'Map',
      },
      {
        matcher: withNetwork('read'),
        loadComponent: () => import('./read/read').then((m) => m.Read),
        title: 'Read',
      },
      {
        matcher: withNetwork('publish'),
        loadComponent: () => import('./publish/publish').then((m) => m.Publish),
        title: 'Publish',
      },
      {
        path: 'logbook',
        loadComponent: () => import('./logbook/logbook').then((m) => m.Logbook),
        title: 'Logbook',
      },
      {
        path: 'logbook/routines',
        loadComponent: () => import('./routines/routines').then((m) => m.Routines),
        title: 'Routines',
      },
      {
        path: '**',
        loadComponent: () => import('./shell/unknown-page').then((m) => m.UnknownPage),
        title: 'No such page',
      },
    ],
  },
  {
    path: '**',
    loadComponent: () => import('./shell/unknown-page').then((m) => m.UnknownPage),
    title: 'No such page',
  },
];
