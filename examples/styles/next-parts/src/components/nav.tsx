'use client';
import { useState } from 'react';
import dynamic from 'next/dynamic';
const Search = dynamic(() => import('./search'), { ssr: false, loading: () => <p>…</p> });
export function Nav() { const [s, setS] = useState(false); return <nav><button onClick={() => setS(true)}>Search</button>{s && <Search onClose={() => setS(false)} />}</nav>; }
