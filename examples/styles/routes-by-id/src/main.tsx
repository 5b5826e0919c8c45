import { createRouter } from '@loft/router';
import { routeTree } from './route-tree';

export const router = createRouter({ routeTree });
