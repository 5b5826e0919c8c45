import seeds from 'seed-store';
import { Sowing } from '../parts/sowing';

export default () => <Sowing list={seeds} />;
