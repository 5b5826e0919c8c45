import { AnchorIcon } from '../shared/icons';
import { camAddress, CAMS } from './webcam-list';

export default function Webcams() {
  return (
    <section>
      <h2><AnchorIcon /> Harbour webcams</h2>
      <div class="webcams">
        {CAMS.map((cam) => <img loading="lazy" src={camAddress(cam)} width="240" height="160" alt={cam} />)}
      </div>
    </section>
  );
}
