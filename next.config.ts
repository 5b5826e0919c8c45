import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'pino', 'oxc-parser', 'oxc-transform', 'oxc-minify', 'oxc-resolver', 'lightningcss', 'chokidar'],
  poweredByHeader: false,
  devIndicators: false,
};

export default config;
