const KEY = 'yokeline:theme';

/** Runs before the first paint, so that a dark page doesn't flash. */
export const THEME_SCRIPT = `try{if(localStorage.getItem('${KEY}')==='dark')document.documentElement.dataset.theme='dark'}catch{}`;

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
