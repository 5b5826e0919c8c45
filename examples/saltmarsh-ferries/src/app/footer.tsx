import { messages } from '../shared/messages';

export function Footer() {
  return (
    <footer class="footer hull-row hull-spread">
      <p>{messages.footer}</p>
      <p><a href="/help#contact">{messages.contact}</a> · <a href="/help#access">{messages.access}</a></p>
    </footer>
  );
}
