import { LitElement, html } from 'lit';
class X extends LitElement { render() { return html`<p>dye-picker</p>`; } }
customElements.define('dye-picker', X);
