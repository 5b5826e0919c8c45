import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'pino', 'oxc-parser', 'oxc-transform', 'oxc-minify', 'oxc-resolver', 'lightningcss'],
  poweredByHeader: false,
  devIndicators: false,
  // Served on this machine: compressing would only take time.
  compress: false,
};

export default config;
