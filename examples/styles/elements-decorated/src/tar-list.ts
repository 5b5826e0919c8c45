import { LitElement, html } from 'lit';
import { customElement } from 'lit/decorators.js';
@customElement('tar-list') export class X extends LitElement { render() { return html`<p>list</p>`; } }
