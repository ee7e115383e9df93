/** How many states a puzzle has. */
import { orderOfPuzzle, writeOrder } from '../../core/analysis/order'
import { puzzleAnd } from '../asked'
import { type Command, one } from '../options'

export const orderCommand: Command = (rest, values) => {
  const [puzzle] = puzzleAnd(rest, 0, values)
  const order = writeOrder(orderOfPuzzle(puzzle))
  return one(order, () =>
    [
      `order of the group  ${order.groupOrder ?? 'not known'}`,
      `states to the eye   ${order.visibleStates ?? 'not known'}`,
      `index               ${order.index ?? 'not known'}`,
      ...(order.silhouettes ? [`silhouettes         ${order.silhouettes}`] : []),
      ...order.invariants,
      ...order.remarks,
    ].join('\n'),
  )
}
