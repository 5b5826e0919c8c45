const KEY = 'yokeline:theme';

/** Runs before the first paint, so that a dark page doesn't flash. Until somebody chooses, the system's preference counts. */
export const THEME_SCRIPT = `{let t=null;try{t=localStorage.getItem('${KEY}')}catch{}if(t==='dark'||(t===null&&matchMedia('(prefers-color-scheme: dark)').matches))document.documentElement.dataset.theme='dark'}`;

export function toggleTheme(): void {
  const dark = document.documentElement.dataset.theme !== 'dark';
  if (dark) document.documentElement.dataset.theme = 'dark';
  else delete document.documentElement.dataset.theme;
  try {
    localStorage.setItem(KEY, dark ? 'dark' : 'light');
  } catch {
    // Without storage the choice lasts as long as the page.
  }
}
