import { Routes } from '@angular/router';
import { Pit } from './pit';
export const routes: Routes = [ { path: '', component: Pit }, { path: 'cart/:id', loadComponent: () => import('./cart').then((m) => m.Cart) } ];
