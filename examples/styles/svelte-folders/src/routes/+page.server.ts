import { all } from 'plots';

export const load = () => ({ plots: all() });
