customElements.define('sea-tail', class extends HTMLElement {});
