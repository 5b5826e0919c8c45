customElements.define('sea-chart', class extends HTMLElement {});
