import './sea-menu.js';
class SeaNav extends HTMLElement {
  connectedCallback() { if (matchMedia('(max-width: 600px)').matches) this.innerHTML = `<sea-menu></sea-menu>`; else this.innerHTML = '<nav>Sea</nav>'; }
}
customElements.define('sea-nav', SeaNav);
