import { Suspense } from 'react';
import { Board } from '@/components/board';
import { Reviews } from '@/components/reviews';
import { getTide } from '@/lib/tide';
export default async function Page() { const tide = await getTide(); return <main><Board /><Suspense fallback={<p/>}><Reviews /></Suspense>{tide.high ? <Board /> : null}</main>; }
