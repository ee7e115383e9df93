import { LinkButton } from '@/ui/Button'

export default function NotFound() {
  return (
    <div className="mx-auto grid max-w-prose gap-4 p-8">
      <h1 className="text-2xl">Nothing stands here</h1>
      <p>The address names a puzzle, a bench or a solve that is not there, or not any more.</p>
      <div>
        <LinkButton href="/shelf">To the shelf</LinkButton>
      </div>
    </div>
  )
}
