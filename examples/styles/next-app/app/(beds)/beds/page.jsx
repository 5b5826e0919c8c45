import dynamic from 'next/dynamic';

const Plan = dynamic(() => import('../../../parts/plan'), { ssr: false, loading: () => <p>…</p> });

export default () => <Plan />;
