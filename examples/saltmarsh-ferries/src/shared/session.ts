import { read } from './storage';

export interface Session {
  name: string | null;
  crew: boolean;
  x: number;
  y: number;
}
export function useSession(): Session {
  return { name: read('name'), crew: read('crew') === 'yes', x: Number(read('x') ?? 0), y: Number(read('y') ?? 0) };
}
