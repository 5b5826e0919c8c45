import './heavy.js';

export * from './lamp.js';
