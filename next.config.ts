import type { NextConfig } from 'next'
import { LONGEST_BODY } from './src/server/limits'

const config: NextConfig = {
  // The tests have a build of their own, so that a demo that runs here goes on undisturbed.
  distDir: process.env.MERRY_BUILD ?? '.next',
  env: { BUILT_AT: Date.now().toString(36) },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // `npm run check` checks the types; a demo need not wait for it.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pg', 'pg-boss'],
  // Browsers ask for it whatever the page says.
  rewrites: () => Promise.resolve([{ source: '/favicon.ico', destination: '/icon.svg' }]),
  // What is longer has been refused at the door.
  experimental: { serverActions: { bodySizeLimit: LONGEST_BODY } },
}

export default config
