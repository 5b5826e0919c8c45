import { later } from '@saltmarsh/view';
import { messages } from '../shared/messages';

const ManifestGrid = later(() => import('./manifest-grid'));

export default function ManifestPage() {
  return <main><h2>{messages.manifest}</h2><ManifestGrid /></main>;
}
