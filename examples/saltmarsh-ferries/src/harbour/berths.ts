import type { Place } from '@saltmarsh/mapkeel';

export const BERTHS: Place[] = [
  { name: 'Customs quay', at: [54.021, 8.112] },
  { name: 'North pier', at: [54.034, 8.12] },
  { name: 'Slipway', at: [54.018, 8.131] },
];
