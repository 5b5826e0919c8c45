import { useState } from '#kit';
import { SearchBox } from '../../parts/search/search-box.jsx';
import { Results } from '../../parts/search/results.jsx';
import { ShelfMap } from '../../parts/search/shelf-map.jsx';
import { Timeline } from '../../parts/search/timeline.jsx';
import { Refine } from '../../parts/search/refine.jsx';

const VIEWS = { list: Results, map: ShelfMap, years: Timeline };

export default function Search() {
  const [view, show] = useState('list');
  const [refining, refine] = useState(false);
  const View = VIEWS[view];
  return (
    <main>
      <SearchBox />
      <nav>
        <button type="button" onClick={() => show('list')}>As a list</button>
        <button type="button" onClick={() => show('map')}>On the shelves</button>
        <button type="button" onClick={() => show('years')}>By year</button>
        <button type="button" onClick={() => refine(!refining)}>Refine</button>
      </nav>
      {refining ? <Refine onDone={() => refine(false)} /> : null}
      <View />
    </main>
  );
}
