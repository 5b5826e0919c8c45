"use client";
import { closeTo } from './close-to.js';

export const Timeline = () => <svg>{closeTo('').map((t, i) => <circle key={t} cx={20 + i * 60} cy="20" r="5" />)}</svg>;
