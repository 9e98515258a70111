import type { NextConfig } from 'next';

const config: NextConfig = {
  turbopack: { root: import.meta.dirname },
  serverExternalPackages: ['better-sqlite3', 'sharp'],
  poweredByHeader: false,
  devIndicators: false,
  experimental: { optimizePackageImports: ['antd', '@ant-design/icons'] },
};

export default config;
