import { LitElement, html, css } from 'lit';
import { customElement, state, property } from 'lit/decorators.js';
import { until } from 'lit/directives/until.js';
import { when } from 'lit/directives/when.js';
import './tar-list';
import './tar-form';
@customElement('tar-app')
export class TarApp extends LitElement {
  static styles = css`:host { display: block }`;
  @state() private adding = false;
  @property({ type: Boolean }) wide = window.matchMedia('(min-width: 800px)').matches;
  @state() private view: 'list' | 'chart' = 'list';
  private _add() { this.adding = true; }
  private async _chart() { await import('./tar-chart'); this.view = 'chart'; }
  render() {
    return html`<h1>Tar</h1>
      ${this.view === 'list' ? html`<tar-list></tar-list>` : html`<tar-chart></tar-chart>`}
      <button @click=${this._add}>Add a barrel</button>
      <button @click=${() => this._chart()}>As a chart</button>
      ${when(this.adding, () => html`<tar-form @done=${() => (this.adding = false)}></tar-form>`)}
      ${until(import('./tar-map').then(() => html`<tar-map></tar-map>`), html`…`)}`;
  }
}
