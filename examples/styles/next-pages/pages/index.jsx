import { open } from 'ledger';
import { Bells } from '../parts/bells';
import { shape } from '../lib/shape';
import { tone } from '../lib/tone';

const recent = () => shape(open('bells'));

export async function getStaticProps() {
  return { props: { bells: recent() } };
}

export default function Home({ bells }) {
  return <Bells bells={bells} tone={tone} />;
}
