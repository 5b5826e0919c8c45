import { expose } from 'comlink';
import { usualTime, workload } from '../core/sim/workload.ts';

expose({ measure: () => usualTime(workload, () => performance.now()) });
