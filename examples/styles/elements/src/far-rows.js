import { LitElement, html } from 'lit';
class X extends LitElement { render() { return html`<p>far-rows</p>`; } }
customElements.define('far-rows', X);
