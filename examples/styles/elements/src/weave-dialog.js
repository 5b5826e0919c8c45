import { LitElement, html } from 'lit';
class X extends LitElement { render() { return html`<p>weave-dialog</p>`; } }
customElements.define('weave-dialog', X);
