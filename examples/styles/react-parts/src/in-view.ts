import { useEffect, useRef, useState } from 'react';
export function useInView() { const ref = useRef<any>(null); const [seen, set] = useState(false); useEffect(() => { const o = new IntersectionObserver(([e]) => set(e.isIntersecting)); o.observe(ref.current); }, []); return [ref, seen] as const; }
