/** What a variant of a school is called: its choices that are not the defaults, or nothing. */
import { fullVariant, type School, type Variant } from '../schools/school'

export function variantWords(school: School, variant: Variant): string {
  const full = fullVariant(school, variant)
  return school.options
    .filter(({ id, choices }) => full[id] !== choices[0].id)
    .map(({ id, name, choices }) => {
      const choice = choices.find((each) => each.id === full[id])
      return `${name.toLowerCase()} ${choice?.name ?? ''}`
    })
    .join(', ')
}
