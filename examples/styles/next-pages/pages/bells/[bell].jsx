import dynamic from 'next/dynamic';
import { Bell } from '../../parts/bell';

const Peal = dynamic(() => import('../../parts/peal'));

const find = async (id) => (await import('ledger')).find(id);

export const getServerSideProps = async ({ params }) => ({ props: { bell: await find(params.bell) } });

export default ({ bell }) => (
  <>
    <Bell bell={bell} />
    <Peal />
  </>
);
