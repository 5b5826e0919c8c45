import type { ComponentType } from 'react';

export const withTide = (Page: ComponentType) => <Page />;
