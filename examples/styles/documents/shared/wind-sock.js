customElements.define(
  'wind-sock',
  class extends HTMLElement {
    connectedCallback() {
      import('./gust.js').then(({ gust }) => gust(this));
    }
  },
);
