/**
 * The 24 proper rotations of the cube: signed permutation matrices with determinant 1, exact in
 * integers. A rotation is named by its index 0..23; index 0 is the identity. Every turn of every
 * puzzle in scope is one of them (also the thirds of a turn of the tetrahedron).
 */
export type Rotation = number
export type Vector = readonly [number, number, number]

export const ROTATION_COUNT = 24
export const IDENTITY: Rotation = 0

/** Row-major 3x3 matrices, one a rotation. */
export const MATRICES: readonly (readonly number[])[] = enumerateMatrices()

/** `PRODUCT[24 * a + b]` is the rotation that does b first and then a. */
export const PRODUCT: Uint8Array = tabulateProducts()

/** `INVERSE[a]` undoes a. */
export const INVERSE: Uint8Array = Uint8Array.from(MATRICES, (_, a) => {
  for (let b = 0; b < ROTATION_COUNT; b++) if (PRODUCT[24 * a + b] === IDENTITY) return b
  throw new Error('a rotation without an inverse')
})

/** b first, then a. */
export const multiply = (a: Rotation, b: Rotation): Rotation => PRODUCT[24 * a + b]

export function rotate(rotation: Rotation, v: Vector): Vector {
  const m = MATRICES[rotation]
  return [
    m[0] * v[0] + m[1] * v[1] + m[2] * v[2] + 0,
    m[3] * v[0] + m[4] * v[1] + m[5] * v[2] + 0,
    m[6] * v[0] + m[7] * v[1] + m[8] * v[2] + 0,
  ]
}

/**
 * The rotation about `axis` by `degrees`, clockwise as seen from outside looking along the axis
 * toward the core. The axis is a face axis (90 degrees), an edge axis (180) or a vertex axis (120)
 * of the cube; anything else is a programming error and throws.
 */
export function rotationAbout(axis: Vector, degrees: number): Rotation {
  const length = Math.hypot(...axis)
  const [x, y, z] = axis.map((c) => c / length)
  // Rodrigues' formula; clockwise from outside is a negative angle about the outward axis.
  const angle = (-degrees * Math.PI) / 180
  const c = Math.cos(angle)
  const s = Math.sin(angle)
  const t = 1 - c
  const exact = [
    t * x * x + c,
    t * x * y - s * z,
    t * x * z + s * y,
    t * x * y + s * z,
    t * y * y + c,
    t * y * z - s * x,
    t * x * z - s * y,
    t * y * z + s * x,
    t * z * z + c,
  ]
  const rounded = exact.map((entry) => Math.round(entry) + 0)
  const found = MATRICES.findIndex((m) => m.every((entry, i) => entry === rounded[i]))
  if (found < 0 || exact.some((entry, i) => Math.abs(entry - rounded[i]) > 1e-9))
    throw new Error(`no rotation of the cube turns ${degrees} degrees about (${axis.join(', ')})`)
  return found
}

/** How often the rotation must be repeated to come back: 1, 2, 3 or 4. */
export function orderOf(rotation: Rotation): number {
  let order = 1
  for (let r = rotation; r !== IDENTITY; r = multiply(rotation, r)) order++
  return order
}

function enumerateMatrices(): number[][] {
  const permutations = [
    [0, 1, 2],
    [1, 2, 0],
    [2, 0, 1],
    [0, 2, 1],
    [1, 0, 2],
    [2, 1, 0],
  ]
  const found: number[][] = []
  permutations.forEach((columns, index) => {
    const parity = index < 3 ? 1 : -1
    for (let signs = 0; signs < 8; signs++) {
      const sign = [0, 1, 2].map((bit) => (signs & (1 << bit) ? -1 : 1))
      if (parity * sign[0] * sign[1] * sign[2] !== 1) continue
      const matrix = new Array<number>(9).fill(0)
      columns.forEach((column, row) => (matrix[3 * row + column] = sign[row]))
      found.push(matrix)
    }
  })
  return found
}

function tabulateProducts(): Uint8Array {
  const key = (m: readonly number[]) => m.map((entry) => entry + 0).join()
  const indexOf = new Map(MATRICES.map((m, index) => [key(m), index]))
  const table = new Uint8Array(ROTATION_COUNT * ROTATION_COUNT)
  MATRICES.forEach((a, i) =>
    MATRICES.forEach((b, j) => {
      const product = [0, 1, 2].flatMap((row) =>
        [0, 1, 2].map((column) =>
          [0, 1, 2].reduce((sum, k) => sum + a[3 * row + k] * b[3 * k + column], 0),
        ),
      )
      table[24 * i + j] = indexOf.get(key(product)) as number
    }),
  )
  return table
}
