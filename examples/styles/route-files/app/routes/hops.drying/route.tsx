import { Heat } from './heat';

export default () => <Heat />;
