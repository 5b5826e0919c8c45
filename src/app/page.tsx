import { redirect } from 'next/navigation';
import { store } from '../server/context.ts';
import { allProjects } from '../server/projects.ts';
import { SAMPLE_ID } from '../server/sample.ts';

export const dynamic = 'force-dynamic';

export default function Home() {
  const projects = allProjects(store());
  const id = projects.find((p) => p.id === SAMPLE_ID)?.id ?? projects[0]?.id ?? SAMPLE_ID;
  redirect(`/p/${id}/startup`);
}
