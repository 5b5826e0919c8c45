import { lazy } from 'react';

export const load = (get) => lazy(get);
