import { read } from 'gauge-log';
import { Dial } from './parts/dial';

export async function loader() {
  return read();
}

export default () => <Dial />;
