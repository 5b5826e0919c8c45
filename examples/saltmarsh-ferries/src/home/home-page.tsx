import './home.css';
import { later } from '@saltmarsh/view';
import { messages } from '../shared/messages';
import { RouteTiles } from './route-tiles';

const Hero = later(() => import('./hero'));
const NextSailings = later(() => import('./next-sailings'));
const Webcams = later(() => import('./webcams'));

export function HomePage() {
  return (
    <main class="home">
      <Hero />
      <h2>{messages.next}</h2>
      <NextSailings />
      <RouteTiles />
      <Webcams />
    </main>
  );
}
