import type { Routes } from '@angular/router';
import { Carts } from './carts';

export const CART_ROUTES: Routes = [{ path: '', component: Carts }];
