import { grid } from '../../../../lib/grid';

export const load = ({ params }) => ({ at: grid(params.plot) });
