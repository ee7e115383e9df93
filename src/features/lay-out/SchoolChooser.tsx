'use client'

import { schoolsFor } from '@/core/schools'
import type { Variant } from '@/core/schools/school'
import { Choice } from '@/ui/Field'

export interface ChosenSchool {
  readonly school: string
  readonly variant: Variant
}

export const firstSchool = (puzzleId: string): ChosenSchool => ({
  school: schoolsFor(puzzleId)[0]?.id ?? '',
  variant: {},
})

/** The school and its variants. */
export function SchoolChooser({
  puzzleId,
  chosen,
  onChange,
}: {
  puzzleId: string
  chosen: ChosenSchool
  onChange: (chosen: ChosenSchool) => void
}) {
  const schools = schoolsFor(puzzleId)
  const school = schools.find(({ id }) => id === chosen.school)
  if (schools.length === 0)
    return (
      <p className="text-sm text-soft">
        This puzzle has no school yet. On the bench it can be turned freely, with undo.
      </p>
    )
  return (
    <div className="grid gap-3">
      <Choice
        label="School"
        hint={school?.character ?? 'You turn it freely, with undo; nothing is planned.'}
        value={chosen.school}
        options={[
          ...schools.map(({ id, name }) => ({ value: id, name })),
          { value: '', name: 'None: free play' },
        ]}
        onChange={(event) => onChange({ school: event.target.value, variant: {} })}
      />
      {school?.options.map((option) => (
        <Choice
          key={option.id}
          label={option.name}
          value={chosen.variant[option.id] ?? option.choices[0].id}
          options={option.choices.map(({ id, name }) => ({ value: id, name }))}
          onChange={(event) =>
            onChange({
              ...chosen,
              variant: { ...chosen.variant, [option.id]: event.target.value },
            })
          }
        />
      ))}
    </div>
  )
}
