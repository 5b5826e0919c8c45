import { Wheel } from '../parts/wheel';

export default () => <Wheel />;
