import { expose } from 'comlink';
import { bestTime, workload } from '../core/sim/workload.ts';

expose({ measure: () => bestTime(workload, () => performance.now()) });
