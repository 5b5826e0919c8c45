import { water } from './actions';
import { Tap } from './tap';

export default () => <Tap water={water} />;
