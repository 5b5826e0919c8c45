import { LitElement, html } from 'lit';
class X extends LitElement { render() { return html`<p>wide-view</p>`; } }
customElements.define('wide-view', X);
