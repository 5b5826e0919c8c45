customElements.define('sea-menu', class extends HTMLElement {});
