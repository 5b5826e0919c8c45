import { useEffect, useState } from 'react';
import { getJson } from './api';
export function useAnswer<T>(path: string) { const [answer, setAnswer] = useState<T | null>(null); useEffect(() => { getJson(path).then(setAnswer); }, [path]); return answer; }
