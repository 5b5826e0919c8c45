import type { RouteEntry } from '@saltmarsh/wayfinder';
import { Frame } from './frame';
import { HomePage } from '../home/home-page';
import { TimetablePage } from '../timetable/timetable-page';
import { SailingPage } from '../sailing/sailing-page';

export const routes: RouteEntry[] = [
  {
    path: '/',
    layout: Frame,
    children: [
      { path: '', page: HomePage },
      { path: 'timetable', page: TimetablePage },
      { path: 'sailings/:id', page: SailingPage },
      { path: 'book', page: () => import('../booking/booking-page') },
      { path: 'trips', page: () => import('../trips/trips-page') },
      { path: 'harbour', page: () => import('../harbour/harbour-page') },
      { path: 'help', page: () => import('../help/help-page') },
      { path: 'crew', layout: () => import('../crew/crew-area') },
    ],
  },
];
