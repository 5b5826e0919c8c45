import { createFileRoute } from '@loft/router';

export const Route = createFileRoute('/birds/$id')({ component: () => <p>A bird</p> });
