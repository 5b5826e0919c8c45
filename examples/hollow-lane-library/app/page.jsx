import { SearchBox } from '../parts/search/search-box.jsx';
import { NewArrivals } from '../parts/home/new-arrivals.jsx';
import { OpenToday } from '../parts/home/open-today.jsx';
import { ReadingRoom } from '../parts/home/reading-room.jsx';
import { Letters } from '../parts/home/letters.jsx';
import { OnceSeen } from '../parts/frame/once-seen.jsx';

export default function Home() {
  return (
    <main>
      <SearchBox />
      <OpenToday />
      <NewArrivals />
      <OnceSeen>
        <ReadingRoom />
      </OnceSeen>
      <OnceSeen tall>
        <Letters />
      </OnceSeen>
    </main>
  );
}
