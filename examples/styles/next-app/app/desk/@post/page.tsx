import { Letters } from '../../../parts/letters';

export default () => <Letters />;
