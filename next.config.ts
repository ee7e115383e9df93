import type { NextConfig } from 'next'

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  serverExternalPackages: ['pg'],
  experimental: { serverActions: { bodySizeLimit: '21mb' } },
}

export default config
