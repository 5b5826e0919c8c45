import { Html } from 'next/document';

export default () => <Html />;
