import type { NextConfig } from 'next';

const config: NextConfig = {
  outputFileTracingRoot: import.meta.dirname,
  turbopack: { root: import.meta.dirname },
  distDir: process.env.ZIRCON_DIST ?? '.next',
  serverExternalPackages: ['pg', 'pdfkit', 'exceljs', 'web-ifc', '@node-rs/argon2', 'pino'],
  poweredByHeader: false,
  // To a browser on the same machine packing takes longer than sending.
  compress: Boolean(process.env.ZIRCON_LISTEN),
  // Types are checked by ./run test; a start need not wait for them.
  typescript: { ignoreBuildErrors: true },
  agentRules: false,
  experimental: { agentUpgrade: false, agentFeedback: false },
} as NextConfig;

export default config;
