'use server';

import store from 'seed-store';

export async function water(bed: string) {
  store.water(bed);
}
