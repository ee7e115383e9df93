'use client'

import { useEffect, useRef, useState } from 'react'
import { array, object, string } from 'yup'
import { definitionKey } from '@/core/analysis/definitionKey'
import { derivedOrder, type WrittenOrder } from '@/core/analysis/derivedOrders'
import { grouped, magnitudeOf } from '@/core/analysis/magnitude'
import type { Puzzle } from '@/core/puzzle/compile'
import { forgetHere, keepHere, keptHere } from '@/ui/browserStore'
import { ShareBar } from '@/ui/ShareBar'
import { Button } from '@/ui/Button'
import { Notice } from '@/ui/Notice'
import { callback, cancelCoach, coach } from '@/workers/coach'

/** How many states there are, shipped or counted here, written so that a person can feel it. */
export function Counts({ puzzle }: { puzzle: Puzzle }) {
  const [order, setOrder] = useState(() => derivedOrder(puzzle.definition))
  const [share, setShare] = useState<number>()
  const [trouble, setTrouble] = useState<string>()
  const running = useRef(false)

  useEffect(() => {
    const kept = keptOrder(puzzle)
    if (kept) setOrder((now) => now ?? kept)
  }, [puzzle])

  useEffect(
    () => () => {
      if (running.current) cancelCoach()
    },
    [],
  )

  const count = async () => {
    setTrouble(undefined)
    setShare(0)
    running.current = true
    const found = await coach().order(
      puzzle.definition.id,
      callback((done: number) => setShare((now) => (now === undefined ? now : done))),
    )
    running.current = false
    setShare(undefined)
    if (!found.ok) return setTrouble(found.problem.sentence)
    setOrder(found.value)
    keepHere(keyOf(puzzle), JSON.stringify(found.value))
  }

  return (
    <section aria-label="How many states" className="grid gap-1">
      <h2 className="text-base">How many states</h2>
      {trouble && <Notice kind="wrong">{trouble}</Notice>}
      {!order && share === undefined && (
        <div className="grid justify-items-start gap-2 text-sm">
          <p>Not counted yet for this setting. It takes a few seconds.</p>
          <Button onClick={() => void count()}>Count them</Button>
        </div>
      )}
      {share !== undefined && (
        <div className="flex items-center gap-3 rounded-lg border border-line bg-surface p-3">
          <ShareBar share={share} label="Counting" />
          <span className="turns text-sm">{Math.round(100 * share)} %</span>
          <Button
            onClick={() => {
              cancelCoach()
              running.current = false
              setShare(undefined)
            }}
          >
            Cancel
          </Button>
        </div>
      )}
      {order && <Told order={order} />}
    </section>
  )
}

/** A count is kept in this browser under the hash of the definition. */
const keyOf = ({ definition }: Puzzle): string => `order:${definitionKey(definition)}`

const digits = () => string().matches(/^\d+$/).nullable().defined()
const sentences = () => array().of(string().required()).required()
const orderSchema = object({
  groupOrder: digits(),
  visibleStates: digits(),
  index: digits(),
  indexByInvariants: digits(),
  silhouettes: digits(),
  invariants: sentences(),
  remarks: sentences(),
})
  .noUnknown()
  .strict()

function keptOrder(puzzle: Puzzle): WrittenOrder | undefined {
  const text = keptHere(keyOf(puzzle))
  if (!text) return undefined
  try {
    return orderSchema.validateSync(JSON.parse(text))
  } catch {
    // What another version kept is counted anew.
    forgetHere(keyOf(puzzle))
    return undefined
  }
}

function Told({ order }: { order: WrittenOrder }) {
  const { groupOrder, visibleStates, silhouettes, index, indexByInvariants } = order
  const shown = visibleStates ?? groupOrder
  return (
    <div className="grid gap-2 text-sm">
      {shown && (
        <div className="rounded-lg border border-line bg-surface p-3">
          <p className="font-display text-lg">{magnitudeOf(BigInt(shown)).rounded}</p>
          <p className="text-soft">
            {visibleStates === null
              ? 'all pieces told apart'
              : silhouettes
                ? 'that look different in the box shape'
                : 'that look different'}
          </p>
          <p className="mt-1">{magnitudeOf(BigInt(shown)).felt}</p>
        </div>
      )}
      {silhouettes && (
        <p>
          <b>{grouped(BigInt(silhouettes))}</b> shapes, the core kept still.
        </p>
      )}
      {order.invariants.length > 0 && (
        <ul className="list-disc pl-5">
          {order.invariants.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      {order.remarks.map((remark) => (
        <p key={remark} className="text-soft">
          {remark}
        </p>
      ))}
      <details>
        <summary className="cursor-pointer text-soft">All digits</summary>
        <dl className="mt-1 grid gap-1 break-words">
          {shown && <Digits name="States that look different" value={visibleStates} />}
          <Digits name="All pieces told apart" value={groupOrder} />
          <Digits
            name="One in so many rearrangements within the orbits can be reached by turning"
            value={index}
          />
          {index !== indexByInvariants && (
            <Digits name="The same by parities and twist sums alone" value={indexByInvariants} />
          )}
        </dl>
      </details>
    </div>
  )
}

function Digits({ name, value }: { name: string; value: string | null }) {
  if (value === null) return null
  return (
    <div>
      <dt className="text-soft">{name}</dt>
      <dd className="turns text-xs">{grouped(BigInt(value))}</dd>
    </div>
  )
}
