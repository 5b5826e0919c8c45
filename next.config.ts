import type { NextConfig } from 'next';

/** Whether the server is reached over a network, as `script/start` is told. */
const listensElsewhere = !/^(127\..*|localhost|::1|)$/.test(process.env.HOST ?? '');

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'pino', 'oxc-parser', 'oxc-transform', 'oxc-minify', 'oxc-resolver', 'lightningcss', 'chokidar'],
  poweredByHeader: false,
  devIndicators: false,
  // On this machine compressing would only take time.
  compress: listensElsewhere,
};

export default config;
