class SeaLog extends HTMLElement {
  connectedCallback() {
    this.innerHTML = `<ul></ul><button>Show the swell</button>`;
    new IntersectionObserver(([e], o) => { if (!e.isIntersecting) return; o.disconnect(); import('./sea-tail.js').then(() => this.insertAdjacentHTML('beforeend', '<sea-tail></sea-tail>')); }).observe(this);
  }
}
window.customElements.define('sea-log', SeaLog);
