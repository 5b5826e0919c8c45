import { Sacks } from '../parts/sacks';

export default () => <Sacks />;
