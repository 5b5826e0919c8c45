import { expose } from 'comlink';
import { Analyst } from './analyst.ts';

expose(new Analyst());
