export interface Sailing {
  id: string;
  from: string;
  to: string;
  leaves: number;
  arrives: number;
  berth: number;
  late: number;
  ship: string;
}
export interface Trip {
  id: string;
  sailing: Sailing;
  places: number;
  paid: boolean;
}
