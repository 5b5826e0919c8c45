export interface Seat {
  number: number;
  row: number;
  side: number;
  taken: boolean;
}
export const SEATS: Seat[] = Array.from({ length: 96 }, (_, n) => ({ number: n, row: n >> 2, side: n & 3, taken: n % 7 === 0 }));
