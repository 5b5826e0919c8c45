const pages = import.meta.glob(['./pages/**/*.js', '!./pages/**/_*.js']);
const widgets = import.meta.glob('./widgets/{clock,scale}.js', { eager: true });
const words = require.context('./words', false, /\.js$/);
const cards = require.context('/src/cards', true, /\.js$/, 'lazy');
const manifest = {
  about: () => import(/* webpackChunkName: "about", webpackPrefetch: true */ './about.js'),
};

export const start = (name) => [pages, widgets, words, cards, manifest][name];
