import { LitElement, html } from 'lit';
import { customElement } from 'lit/decorators.js';
@customElement('tar-chart') export class X extends LitElement { render() { return html`<p>chart</p>`; } }
