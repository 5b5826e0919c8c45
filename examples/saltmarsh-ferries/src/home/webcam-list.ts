export const CAMS = ['north-pier', 'slipway', 'customs-quay', 'beacon'];

export function camAddress(cam: string): string {
  return `/cams/${cam}.jpg?at=${Math.floor(Date.now() / 60_000)}`;
}
