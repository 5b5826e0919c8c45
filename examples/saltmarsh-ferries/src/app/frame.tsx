import './frame.css';
import { later } from '@saltmarsh/view';
import { go } from '@saltmarsh/wayfinder';
import { Masthead } from './masthead';
import { ConsentBar } from './consent-bar';
import { LanguagePicker } from './language-picker';
import { Footer } from './footer';
import { nearestBerth } from '../harbour/berth-finder';

const NarrowMenu = later(() => import('./narrow-menu'));

export function Frame({ children }: { children?: unknown }) {
  const narrow = matchMedia('(max-width: 640px)').matches;
  return (
    <div class="frame">
      <Masthead onLogo={() => go('/')} nearest={nearestBerth} />
      <LanguagePicker />
      {narrow ? <NarrowMenu /> : null}
      {children as never}
      <Footer />
      <ConsentBar />
    </div>
  );
}
export default Frame;
