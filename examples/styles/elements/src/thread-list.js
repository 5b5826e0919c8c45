import { LitElement, html } from 'lit';
class X extends LitElement { render() { return html`<p>thread-list</p>`; } }
customElements.define('thread-list', X);
