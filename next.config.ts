import type { NextConfig } from 'next'

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // `npm run check` checks the types; a demo need not wait for it.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pg'],
  // Browsers ask for it whatever the page says.
  rewrites: () => Promise.resolve([{ source: '/favicon.ico', destination: '/icon.svg' }]),
  experimental: { serverActions: { bodySizeLimit: '21mb' } },
}

export default config
