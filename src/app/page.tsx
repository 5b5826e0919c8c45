import { redirect } from 'next/navigation';
import { store } from '../server/context.ts';
import { allProjects } from '../server/projects.ts';
import { SAMPLE_ID } from '../server/sample.ts';

export const dynamic = 'force-dynamic';

export default function Home() {
  redirect(`/p/${firstProject()}/startup`);
}

function firstProject(): string {
  try {
    const projects = allProjects(store());
    return projects.find((p) => p.id === SAMPLE_ID)?.id ?? projects[0]?.id ?? SAMPLE_ID;
  } catch {
    // The workbench says what is wrong with the database, and what can be done.
    return SAMPLE_ID;
  }
}
