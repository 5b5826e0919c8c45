'use client';
import { useState } from 'react';
import { Sheet, SheetTrigger, SheetContent } from './ui/sheet';
import { Filter } from './filter';
export function Board() { const [n, set] = useState(0); return <section><b onClick={() => set(n + 1)}>{n}</b><Sheet><SheetTrigger asChild><button>Filter</button></SheetTrigger><SheetContent><Filter /></SheetContent></Sheet></section>; }
