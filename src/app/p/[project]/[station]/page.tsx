import { notFound } from 'next/navigation';
import { isStation } from '../../../../core/vocabulary/stations.ts';
import { Workbench } from '../../../../ui/frame/workbench.tsx';

export default async function Page({ params }: { params: Promise<{ project: string; station: string }> }) {
  const { project, station } = await params;
  if (!isStation(station)) notFound();
  return <Workbench key={project} projectId={project} station={station} />;
}
