import { LitElement, html } from 'lit';
import { customElement } from 'lit/decorators.js';
@customElement('tar-map') export class X extends LitElement { render() { return html`<p>map</p>`; } }
