export const FONTS_KEY = 'yokeline:fonts';

/** Runs before the first paint: in a browser that has fetched the page’s fonts before, they are used from the beginning. */
export const FONT_SCRIPT = `try{if(localStorage.getItem('${FONTS_KEY}'))document.documentElement.dataset.fonts='own'}catch{}`;
