export interface Vehicle {
  code: string;
  name: string;
  metres: number;
  pence: number;
}
export const VEHICLES: Vehicle[] = [
  { code: 'none', name: 'On foot', metres: 0, pence: 0 },
  { code: 'bike', name: 'Bicycle', metres: 2, pence: 300 },
  { code: 'car', name: 'Car up to 5 m', metres: 5, pence: 4200 },
  { code: 'van', name: 'Van up to 7 m', metres: 7, pence: 6900 },
  { code: 'camper', name: 'Camper over 7 m', metres: 9, pence: 9900 },
];
