import { tick } from '../lib/tick';

export default defineNuxtPlugin(() => tick());
