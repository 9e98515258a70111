import type { NextConfig } from 'next';

const config: NextConfig = {
  turbopack: { root: import.meta.dirname },
  serverExternalPackages: ['@aws-sdk/client-s3', 'better-sqlite3', 'paper', 'pdfkit', 'sharp', 'workerpool'],
  poweredByHeader: false,
  // Pages come from this machine: packing a large drawing takes longer than sending it.
  compress: false,
  // Pictures are made by the program itself; the framework's own maker would be one more door.
  images: { unoptimized: true },
  devIndicators: false,
  // The tests check types by themselves, beside other work.
  typescript: { ignoreBuildErrors: process.env.TYPES_CHECKED === '1' },
  experimental: { optimizePackageImports: ['antd', '@ant-design/icons'] },
};

export default config;
