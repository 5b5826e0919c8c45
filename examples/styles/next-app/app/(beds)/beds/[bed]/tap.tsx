'use client';

import { water } from './actions';

export const Tap = () => <button onClick={() => water('north')}>Water</button>;
