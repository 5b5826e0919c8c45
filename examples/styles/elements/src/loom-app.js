import { LitElement, html, nothing } from 'lit';
import './thread-list.js';
import './weave-dialog.js';
import './wide-view.js';
export class LoomApp extends LitElement {
  static properties = { open: { state: true }, mode: {} };
  narrow = matchMedia('(max-width: 700px)').matches;
  constructor() { super(); this.open = false; this.mode = 'list'; }
  connectedCallback() { super.connectedCallback(); new IntersectionObserver(() => { this.seen = true; import('./far-rows.js'); }).observe(this); }
  async showDye() { await import('./dye-picker.js'); this.dye = true; }
  renderDialog() { return html`<weave-dialog .open=${this.open}></weave-dialog>`; }
  render() {
    return html`
      <header>Loom</header>
      <thread-list .rows=${this.rows}></thread-list>
      <button @click=${() => (this.open = true)}>New weave</button>
      ${this.open ? this.renderDialog() : nothing}
      <button @click=${this.showDye}>Dye</button>
      ${this.dye ? html`<dye-picker></dye-picker>` : ''}
      ${this.narrow ? nothing : html`<wide-view></wide-view>`}
      ${this.seen ? html`<far-rows></far-rows>` : nothing}
    `;
  }
}
customElements.define('loom-app', LoomApp);
