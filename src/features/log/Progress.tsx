'use client'

import dynamic from 'next/dynamic'

/** The chart is loaded after the first paint. */
export const Progress = dynamic(
  () => import('./ProgressChart').then((module) => module.ProgressChart),
  {
    ssr: false,
    loading: () => <div className="h-full min-h-56" />,
  },
)
