customElements.define('kite-list', class extends HTMLElement {});
