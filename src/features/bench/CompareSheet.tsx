'use client'

import { useEffect, useState } from 'react'
import { variantWords } from '@/core/coach/variantWords'
import { must } from '@/core/result'
import { schoolNamed } from '@/core/schools'
import type { Variant } from '@/core/schools/school'
import { ShareBar } from '@/ui/ShareBar'
import { Button } from '@/ui/Button'
import { Sheet } from '@/ui/Sheet'
import { callback, coach } from '@/workers/coach'
import type { ComparedWay, PlanRequest } from '@/workers/coach.worker'

/** Every school and variant for the very position on the bench. */
export function CompareSheet({
  request,
  onChoose,
  onClose,
}: {
  request: PlanRequest
  onChoose: (school: string, variant: Variant) => void
  onClose: () => void
}) {
  const [ways, setWays] = useState<readonly ComparedWay[]>()
  const [share, setShare] = useState(0)
  const [trouble, setTrouble] = useState<string>()
  useEffect(() => {
    let gone = false
    void coach()
      .compare(
        request,
        callback((done: number) => !gone && setShare(done)),
      )
      .then((result) => {
        if (gone) return
        if (result.ok) setWays(result.value)
        else setTrouble(result.problem.sentence)
      })
    return () => {
      gone = true
    }
  }, [request])
  return (
    <Sheet
      open
      wide
      onOpenChange={onClose}
      title="Ways home from here"
      description="Every school, for the position on the bench."
    >
      {trouble && <p role="alert">{trouble}</p>}
      {!ways && !trouble && (
        <div className="grid gap-2">
          <p>Looking at every school.</p>
          <ShareBar share={share} label="Progress" />
        </div>
      )}
      {ways && (
        <div className="overflow-x-auto">
          <table className="w-full text-sm">
            <thead className="text-left text-soft">
              <tr>
                <th className="py-1 pr-3 font-normal">School</th>
                <th className="px-3 text-right font-normal">Turns</th>
                <th className="px-3 text-right font-normal max-sm:hidden">in quarters</th>
                <th className="px-3 text-right font-normal max-sm:hidden">Algorithms</th>
                <th className="px-3 text-right font-normal max-sm:hidden">Looks</th>
                <th>
                  <span className="sr-only">Choose</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {ways.map((way) => {
                const school = must(schoolNamed(request.puzzleId, way.school))
                const words = variantWords(school, way.variant)
                return (
                  <tr
                    key={`${way.school} ${JSON.stringify(way.variant)}`}
                    className="border-t border-line"
                  >
                    <td className="py-1.5 pr-3">
                      {way.schoolName}
                      {words && <span className="text-soft">, {words}</span>}
                    </td>
                    <td className="turns px-3 text-right">{way.turns}</td>
                    <td className="turns px-3 text-right max-sm:hidden">{way.quarters}</td>
                    <td className="turns px-3 text-right max-sm:hidden">{way.algorithms}</td>
                    <td className="turns px-3 text-right max-sm:hidden">{way.looks}</td>
                    <td className="text-right">
                      <Button
                        weight="quiet"
                        aria-label={`Take ${way.schoolName}${words ? `, ${words}` : ''}`}
                        onClick={() => onChoose(way.school, way.variant)}
                      >
                        Take it
                      </Button>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </div>
      )}
    </Sheet>
  )
}
