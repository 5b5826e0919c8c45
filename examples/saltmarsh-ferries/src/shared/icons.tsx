export function MenuIcon() {
  return <svg viewBox="0 0 16 16" width="16" height="16"><path d="M2 4h12M2 8h12M2 12h12" stroke="currentColor" /></svg>;
}
export function AnchorIcon() {
  return <svg viewBox="0 0 16 16" width="16" height="16"><path d="M8 2v12M4 10a4 4 0 0 0 8 0M6 5h4" stroke="currentColor" fill="none" /></svg>;
}
export function WaveIcon() {
  return <svg viewBox="0 0 16 16" width="16" height="16"><path d="M1 9q2-3 4 0t4 0 4 0" stroke="currentColor" fill="none" /></svg>;
}
