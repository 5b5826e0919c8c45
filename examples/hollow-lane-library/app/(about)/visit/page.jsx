import { Hours } from '../../../parts/visit/hours.jsx';
import { WayHere } from '../../../parts/visit/way-here.jsx';
import { FloorPlan } from '../../../parts/visit/floor-plan.jsx';
import { SketchPlan } from '../../../parts/visit/sketch-plan.jsx';
import { Tour } from '../../../parts/visit/tour.jsx';
import { useSheet } from '../../../parts/frame/use-sheet.js';

export default function Visit() {
  const wide = matchMedia('(min-width: 900px)').matches;
  const tour = useSheet();
  return (
    <main>
      <Hours />
      <WayHere />
      {wide ? <FloorPlan /> : <SketchPlan />}
      <button type="button" onClick={tour.begin}>Walk through the rooms</button>
      {tour.on && <Tour onEnd={tour.end} />}
    </main>
  );
}
