import { expose } from 'comlink';
import { showAlive } from './alive.ts';
import { Analyst } from './analyst.ts';

expose(new Analyst());
showAlive();
