import { messages } from '../shared/messages';

export default function Hero() {
  return (
    <section class="hero">
      <img src="/images/pier-at-dawn.jpg" width="1200" height="320" alt="The pier at dawn" />
      <a class="call" href="/book">{messages.book}</a>
    </section>
  );
}
