import type { NextConfig } from 'next';

const config: NextConfig = {
  outputFileTracingRoot: import.meta.dirname,
  turbopack: { root: import.meta.dirname },
  distDir: process.env.ZIRCON_DIST ?? '.next',
  serverExternalPackages: ['pg', 'pdfkit', 'exceljs', 'web-ifc', '@node-rs/argon2', 'pino'],
  poweredByHeader: false,
  // Types are checked by ./run test; a start need not wait for them.
  typescript: { ignoreBuildErrors: true },
  agentRules: false,
  experimental: { agentUpgrade: false, agentFeedback: false },
} as NextConfig;

export default config;
