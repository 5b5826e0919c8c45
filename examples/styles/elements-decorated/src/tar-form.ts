import { LitElement, html } from 'lit';
import { customElement } from 'lit/decorators.js';
@customElement('tar-form') export class X extends LitElement { render() { return html`<p>form</p>`; } }
