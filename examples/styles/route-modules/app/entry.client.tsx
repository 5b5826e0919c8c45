import { hydrateRoot } from 'react-dom/client';
import { HydratedRouter } from 'react-router';

hydrateRoot(document, <HydratedRouter />);
