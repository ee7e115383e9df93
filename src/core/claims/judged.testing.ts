/** What is said beside cards, judged like what is said on them; and lies about it that nobody finds. For tests. */
import type { Puzzle } from '../puzzle/compile'
import { sentencesOf } from '../words/say'
import { isSayable, type Claim, type ClaimKind, type Said } from './claim'
import { saidSchema } from './claimSchema'
import type { Evidence } from './evidence'
import { isTrue } from './isTrue'
import { liesOf } from './lies.testing'

export class Judged {
  readonly kinds = new Map<ClaimKind, number>()
  readonly unfound: string[] = []

  /** @param lies how many claims of each kind are lied about */
  constructor(private readonly lies = 3) {}

  /** What is wrong about it: not true, not said in sentences, not stored. */
  faultsOf(puzzle: Puzzle, said: Said, evidence: Evidence): string[] {
    const faults = sentencesOf(puzzle, said, { frame: evidence.now.frame }).filter(
      (sentence) => !/^[A-Z0-9].*[.]$/s.test(sentence),
    )
    if (!saidSchema().isValidSync(said, { strict: true })) faults.push(JSON.stringify(said))
    for (const claim of said) {
      const isSo = isSayable(puzzle, claim) && isTrue(claim, evidence)
      if (!isSo) faults.push(`${puzzle.definition.id} untrue: ${JSON.stringify(claim)}`)
      const told = this.kinds.get(claim.kind) ?? 0
      this.kinds.set(claim.kind, told + 1)
      if (told < this.lies) this.lieAbout(puzzle, claim, evidence)
    }
    return faults
  }

  private lieAbout(puzzle: Puzzle, claim: Claim, evidence: Evidence): void {
    for (const [field, lie] of liesOf(puzzle, claim))
      if (isTrue(lie, evidence))
        this.unfound.push(`${puzzle.definition.id} ${claim.kind}.${field}: ${JSON.stringify(lie)}`)
  }
}
