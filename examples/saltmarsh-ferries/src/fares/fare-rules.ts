import { VEHICLES } from './vehicle-tables';

export interface FareInput {
  adults: number;
  children: number;
  vehicle: string;
}
export function fareFor({ adults, children, vehicle }: FareInput): number {
  const car = VEHICLES.find((v) => v.code === vehicle)?.pence ?? 0;
  return adults * 1450 + children * 725 + car;
}
