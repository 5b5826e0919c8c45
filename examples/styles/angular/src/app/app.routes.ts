import type { Routes } from '@angular/router';
import { Charge } from './charge';
import { Frame } from './frame';

export const routes: Routes = [
  { path: '', component: Charge, pathMatch: 'full' },
  {
    path: 'burn',
    component: Frame,
    canActivate: [() => true],
    children: [
      { path: '', loadComponent: () => import('./burn').then((m) => m.Burn) },
      { path: ':day', loadComponent: () => import('./day') },
    ],
  },
  { path: 'carts', loadChildren: () => import('./carts/carts.routes').then((m) => m.CART_ROUTES) },
  { path: 'office', loadChildren: () => import('./office/office.module').then((m) => m.OfficeModule) },
  { path: 'old', redirectTo: 'burn' },
  { path: '**', loadComponent: () => import('./lost').then((m) => m.Lost) },
];
