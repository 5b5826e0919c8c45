import { cold } from '../lib/cold';
export function useBlocks() {
  return [cold(1), cold(2)];
}
