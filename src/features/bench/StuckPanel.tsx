import { X } from 'lucide-react'
import type { DialectId } from '@/core/notation/dialect'
import { writeNames } from '@/core/notation/write'
import { groupNames } from '@/core/analysis/groupNames'
import type { Scheme } from '@/core/puzzle/colours'
import type { Puzzle } from '@/core/puzzle/compile'
import type { OrbitAccount } from '@/core/stuck/finding'
import type { Remedy } from '@/core/stuck/remedies'
import { listed, plural } from '@/core/phrases'
import { Button, LinkButton } from '@/ui/Button'
import { DiagnosisNotice } from '@/ui/DiagnosisNotice'
import { IconButton } from '@/ui/IconButton'
import { Notice } from '@/ui/Notice'
import { ShareBar } from '@/ui/ShareBar'
import type { StuckControls } from './useStuck'

/** More turns than this are counted and not listed. */
const LISTED = 24

/** What the position on the bench is, the count that shows it, and the ways out. */
export function StuckPanel({
  puzzle,
  scheme,
  dialect,
  layOut,
  controls: { stuck, share, problem, toggle },
  onTake,
}: {
  puzzle: Puzzle
  scheme: Scheme
  dialect: DialectId
  /** Where what is seen can be laid out anew. */
  layOut: string
  controls: StuckControls
  onTake: (remedy: Remedy) => void
}) {
  return (
    <section aria-label="Stuck" className="grid gap-3 rounded-lg border border-line bg-surface p-4">
      <div className="flex items-center justify-between">
        <h2 className="text-lg">Stuck</h2>
        <IconButton title="Close" label="Close what this is" onClick={toggle}>
          <X size={18} aria-hidden />
        </IconButton>
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {!stuck && !problem && (
        <div className="flex items-center gap-3">
          <ShareBar share={share} label="Working out what this is" />
          <Button onClick={toggle}>Close</Button>
        </div>
      )}
      {stuck && (
        <>
          <DiagnosisNotice
            puzzle={puzzle}
            scheme={scheme}
            dialect={dialect}
            diagnosis={stuck.diagnosis}
          />
          <Counts puzzle={puzzle} account={stuck.diagnosis.account} />
          {stuck.remedies.length > 0 && (
            <div className="grid gap-2">
              <h3 className="text-sm text-soft">Ways out</h3>
              <ul className="grid gap-2">
                {stuck.remedies.map((remedy) => (
                  <RemedyRow
                    key={remedy.kind}
                    remedy={remedy}
                    dialect={dialect}
                    onTake={() => onTake(remedy)}
                  />
                ))}
              </ul>
            </div>
          )}
          <p className="text-sm text-soft">
            All this is about the picture. If your puzzle looks different, lay out what you see.
          </p>
          <LinkButton href={layOut} className="justify-self-start">
            Lay out what I see
          </LinkButton>
        </>
      )}
    </section>
  )
}

function Counts({ puzzle, account }: { puzzle: Puzzle; account: readonly OrbitAccount[] }) {
  if (account.length === 0) return null
  const rows = rowsOf(puzzle, account)
  const names = groupNames(
    puzzle,
    rows.map(({ places }) => places),
  )
  return (
    <table className="w-full text-sm">
      <caption className="pb-1 text-left text-soft">The count, orbit by orbit</caption>
      <thead className="text-left text-soft">
        <tr>
          <th className="font-normal">Pieces</th>
          <th className="px-2 text-right font-normal">Not right</th>
          <th className="px-2 font-normal">Exchanges</th>
          <th className="font-normal">Twists</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ places, wrong, parity, twist }, row) => (
          <tr key={places[0]} className="border-t border-line align-top">
            <td className="py-0.5">{names[row].name}</td>
            <td className="turns px-2 text-right">
              {wrong} of {places.length}
            </td>
            <td className="px-2">{parity === undefined ? '' : parity === 1 ? 'odd' : 'even'}</td>
            <td>{twist && twistWords(twist)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}

/** Pieces that only turn in their places are counted together, kind by kind. */
function rowsOf(puzzle: Puzzle, account: readonly OrbitAccount[]): OrbitAccount[] {
  const kindOf = ({ places }: OrbitAccount) => puzzle.pieces[places[0]].kind
  const single = account.filter(({ places }) => places.length === 1)
  const joined = [...new Set(single.map(kindOf))].map((kind): OrbitAccount => {
    const own = single.filter((each) => kindOf(each) === kind)
    const ways = own[0].twist?.ways ?? 1
    return {
      places: own.flatMap(({ places }) => [...places]),
      wrong: own.reduce((sum, { wrong }) => sum + wrong, 0),
      twist: { ways, sum: own.reduce((sum, { twist }) => sum + (twist?.sum ?? 0), 0) },
    }
  })
  return [...account.filter(({ places }) => places.length > 1), ...joined]
}

function twistWords({ sum, ways }: NonNullable<OrbitAccount['twist']>): string {
  if (sum === 0) return 'add up'
  if (ways === 2) return 'odd'
  return `${plural(sum, ways === 3 ? 'third' : 'quarter')} over`
}

function RemedyRow({
  remedy: { kind, name, turns, turnCount, dueAgain },
  dialect,
  onTake,
}: {
  remedy: Remedy
  dialect: DialectId
  onTake: () => void
}) {
  return (
    <li className="grid gap-1 border-t border-line pt-2 text-sm">
      <div className="flex items-start justify-between gap-2">
        <p>
          {name}: <span className="turns">{turnCount}</span> {turnCount === 1 ? 'turn' : 'turns'}.
          {dueAgain.length > 0 && ` Due again afterwards: ${listed(dueAgain)}.`}
        </p>
        <Button onClick={onTake}>{kind === 'home' ? 'Take it' : 'Make them'}</Button>
      </div>
      {turns.length <= LISTED && <p className="turns text-soft">{writeNames(turns, dialect)}</p>}
    </li>
  )
}
