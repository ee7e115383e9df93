/**
 * The two windows in true perspective: one scene, one canvas, two cameras from opposite corners.
 * Nothing is drawn while nothing moves.
 */
import {
  AmbientLight,
  CanvasTexture,
  Color,
  DirectionalLight,
  Group,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  PerspectiveCamera,
  Quaternion,
  Raycaster,
  Scene,
  Vector2,
  Vector3,
  WebGLRenderer,
  type Object3D,
  MathUtils,
} from 'three'
import { fillerOf } from '@/core/analysis/anatomy'
import { average, length as lengthOf, subtract } from '@/core/geometry/vector'
import { colourIn, type Colour, type Scheme } from '@/core/puzzle/colours'
import { IN, type Puzzle, type Turn } from '@/core/puzzle/compile'
import { drawnFaces } from '@/core/puzzle/drawnFaces'
import { poseOf } from '@/core/puzzle/view'
import { MATRICES, type Vector } from '@/core/rotation'
import type { State } from '@/core/state'
import { eyeOf, WINDOW_NAMES, type WindowName } from '../camera'
import { markInk, MARK_PATHS } from '../marks'
import { cutWidth } from '@/core/puzzle/cutWidth'
import type { Eye } from './overlay'
import { markGeometry, pieceGeometry, rimGeometry, ringGeometry } from './geometry'

/** Pieces (by index) and places (as slots) that the eye is led to. */
export interface Lights {
  readonly attend: readonly number[]
  readonly safe: readonly number[]
  /** Pieces that block, or are wrong. */
  readonly wrong?: readonly number[]
  readonly places: readonly number[]
}

export interface Hit {
  readonly piece: number
  readonly window: WindowName
  /** On the puzzle's surface, and outward there. */
  readonly point: Vector
  readonly normal: Vector
}

interface Rectangle {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

const FIELD_OF_VIEW = 30
/** Cosine of the widest angle between a drag and the turn that it makes. */
const LEAST_MATCH = 0.7
/** Cosine of the least angle between a face and the axis of a turn that is dragged on it. */
const MOST_ALONG = 0.9
const RIM_COLOURS = { attend: '#f4b44c', safe: '#62c9b8', wrong: '#ff8f9f' } as const
/** In pixels: nearer to the edge of a window a letter would be cut, or lie on the words that stand there. */
const LETTER_MARGIN = { side: 10, edge: 28 } as const

/** How far a touched piece stands out, in its distance from the core. */
const RAISE = 0.16

export class PuzzleScene {
  private readonly renderer: WebGLRenderer
  private readonly scene = new Scene()
  /** Turned by peeking; inside it the puzzle as it is held for the picture. */
  private readonly root = new Group()
  private readonly held = new Group()
  private readonly pieces: Group[] = []
  private readonly bodies: Mesh[] = []
  private readonly rims: Mesh[] = []
  /** Homes of pieces, blank, by piece; made when first shown. */
  private readonly blanks = new Map<number, Mesh>()
  /** By slot; made when first shown. */
  private readonly rings = new Map<number, Mesh>()
  private readonly body = new MeshLambertMaterial({ vertexColors: true })
  /** From its core toward the middle of each piece: where it goes when the puzzle is taken apart. */
  private readonly outward: Vector3[] = []
  private apart = 0
  private raised?: number
  private readonly cameras: Record<WindowName, PerspectiveCamera>
  private readonly rimMaterials = {
    attend: new MeshBasicMaterial({ color: RIM_COLOURS.attend }),
    safe: new MeshBasicMaterial({ color: RIM_COLOURS.safe }),
    wrong: new MeshBasicMaterial({ color: RIM_COLOURS.wrong }),
  }
  private marks: { mesh: Mesh; material: MeshBasicMaterial }[] = []
  private frame = 0
  private moving?: { finish: () => void }
  private swapped = false

  constructor(
    canvas: HTMLCanvasElement,
    private readonly puzzle: Puzzle,
    scheme: Scheme,
    marks: boolean,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true })
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio))
    this.renderer.setScissorTest(true)
    this.renderer.autoClear = false
    this.cameras = { near: this.camera('near'), far: this.camera('far') }
    this.root.add(this.held)
    this.scene.add(this.root, new AmbientLight('#ffffff', 2.1))
    for (const name of WINDOW_NAMES) {
      const light = new DirectionalLight('#fff4dc', 1.15)
      const [x, y, z] = eyeOf(name, puzzle.definition)
      light.position.set(x * 0.4, y * 2, z)
      this.scene.add(light)
    }
    this.build()
    this.paint(scheme, marks)
    canvas.addEventListener('webglcontextrestored', () => this.draw())
  }

  private camera(name: WindowName): PerspectiveCamera {
    const camera = new PerspectiveCamera(FIELD_OF_VIEW, 1, 0.1, 200)
    camera.position.set(...eyeOf(name, this.puzzle.definition))
    return camera
  }

  private build(): void {
    const [right, up, front] = poseOf(this.puzzle.definition).map((row) => new Vector3(...row))
    this.held.quaternion.setFromRotationMatrix(
      new Matrix4().makeBasis(right, up, front).transpose(),
    )
    const middle = new Vector3(...this.puzzle.middle).applyQuaternion(this.held.quaternion)
    this.held.position.copy(middle.negate())
    this.puzzle.pieces.forEach((piece) => {
      const core = this.puzzle.cores[piece.core]
      const group = new Group()
      const mesh = new Mesh(undefined, this.body)
      const rim = new Mesh(
        rimGeometry(piece, core, cutWidth(this.puzzle)),
        this.rimMaterials.attend,
      )
      rim.visible = false
      group.add(mesh, rim)
      const face = average(piece.faces.flatMap(({ polygon }) => [...polygon]))
      this.outward.push(new Vector3(...subtract(face, core)))
      this.bodies.push(mesh)
      this.rims.push(rim)
      this.pieces.push(group)
      this.held.add(group)
    })
  }

  /** Rings mark places, so they stay where they are when pieces move. */
  private ringAt(slot: number): Mesh {
    const known = this.rings.get(slot)
    if (known) return known
    const { piece, rotation } = fillerOf(this.puzzle, slot)
    const { core } = this.puzzle.pieces[piece]
    const geometry = ringGeometry(this.puzzle.pieces[piece], this.puzzle.cores[core])
    const ring = new Mesh(geometry, this.rimMaterials.attend)
    this.place(ring, piece, quaternionOf(rotation))
    this.rings.set(slot, ring)
    this.held.add(ring)
    return ring
  }

  /** Colours and marks of a copy. */
  paint(scheme: Scheme, marks: boolean): void {
    this.puzzle.pieces.forEach((piece, p) => {
      this.bodies[p].geometry.dispose()
      this.bodies[p].geometry = pieceGeometry(
        piece,
        this.puzzle.cores[piece.core],
        cutWidth(this.puzzle),
        scheme,
      )
    })
    this.clearMarks()
    if (marks) {
      const materials = new Map(scheme.map((colour) => [colour.id, markMaterial(colour)]))
      this.puzzle.pieces.forEach((piece, p) => {
        for (const face of drawnFaces(piece)) {
          const material = materials.get(colourIn(scheme, face.colour).id) as MeshBasicMaterial
          const mesh = new Mesh(markGeometry(face, this.puzzle.cores[piece.core]), material)
          this.marks.push({ mesh, material })
          this.pieces[p].add(mesh)
        }
      })
    }
    this.draw()
  }

  private clearMarks(): void {
    for (const { mesh, material } of this.marks) {
      mesh.removeFromParent()
      mesh.geometry.dispose()
      material.map?.dispose()
      material.dispose()
    }
    this.marks = []
  }

  /** Puts a piece where a rotation about its core takes it. */
  private put(piece: number, rotation: Quaternion): void {
    const out = this.apart + (piece === this.raised ? RAISE : 0)
    this.place(this.pieces[piece], piece, rotation, out)
  }

  private place(group: Object3D, piece: number, rotation: Quaternion, out = this.apart): void {
    group.quaternion.copy(rotation)
    const core = this.puzzle.cores[this.puzzle.pieces[piece].core]
    group.position.copy(this.outward[piece]).multiplyScalar(out).applyQuaternion(rotation)
    group.position.x += core[0]
    group.position.y += core[1]
    group.position.z += core[2]
  }

  show(state: State): void {
    this.moving?.finish()
    this.state = state
    state.forEach((r, p) => this.put(p, quaternionOf(r)))
    this.draw()
  }

  private state?: State

  /** Pulls the pieces outward: 0 together, 1 twice as far from the core. */
  takeApart(apart: number): void {
    this.apart = apart
    for (const [slot, ring] of this.rings) {
      const { piece, rotation } = fillerOf(this.puzzle, slot)
      this.place(ring, piece, quaternionOf(rotation))
    }
    if (this.state) this.show(this.state)
  }

  /** Draws only some pieces, and some homes blank. */
  showOnly(pieces: ReadonlySet<number>, blanks: ReadonlySet<number>): void {
    this.pieces.forEach((group, p) => (group.visible = pieces.has(p)))
    for (const blank of this.blanks.values()) blank.visible = false
    for (const p of blanks) this.blankAt(p).visible = true
    this.draw()
  }

  private blankAt(piece: number): Mesh {
    const known = this.blanks.get(piece)
    if (known) return known
    const { core } = this.puzzle.pieces[piece]
    const geometry = pieceGeometry(
      this.puzzle.pieces[piece],
      this.puzzle.cores[core],
      cutWidth(this.puzzle),
    )
    const blank = new Mesh(geometry, this.body)
    this.place(blank, piece, quaternionOf(0))
    this.blanks.set(piece, blank)
    this.held.add(blank)
    return blank
  }

  /** Lets one piece stand out a little, or none. */
  raise(piece: number | undefined): void {
    this.raised = piece
    if (this.state) this.show(this.state)
  }

  /** Plays a turn that leads from one state to another; resolves when it has come to rest. */
  play(turn: Turn, from: State, to: State, milliseconds: number): Promise<void> {
    this.moving?.finish()
    if (milliseconds <= 0 || document.hidden) {
      this.show(to)
      return Promise.resolve()
    }
    const grip = this.puzzle.grips[turn.grip]
    const carry = this.puzzle.carry[turn.grip]
    const full = 360 / grip.unitDegrees
    const amount = turn.amount > full / 2 ? turn.amount - full : turn.amount
    const angle = (-amount * grip.unitDegrees * Math.PI) / 180
    const axis = new Vector3(...grip.axis).normalize()
    const moved = this.pieces.flatMap((_, p) =>
      carry[24 * p + from[p]] === IN ? [{ piece: p, start: quaternionOf(from[p]) }] : [],
    )
    this.state = to
    const step = new Quaternion()
    const turned = new Quaternion()
    const duration = milliseconds * (Math.abs(amount) === 2 ? 1.4 : 1)
    return new Promise((resolve) => {
      const began = performance.now()
      let request = 0
      const finish = () => {
        cancelAnimationFrame(request)
        this.moving = undefined
        to.forEach((r, p) => this.put(p, quaternionOf(r)))
        this.draw()
        resolve()
      }
      this.moving = { finish }
      const tick = (now: number) => {
        const t = Math.min(1, (now - began) / duration)
        if (t >= 1) return finish()
        const eased = t * t * (3 - 2 * t)
        step.setFromAxisAngle(axis, angle * eased)
        for (const { piece, start } of moved)
          this.put(piece, turned.multiplyQuaternions(step, start))
        this.render()
        request = requestAnimationFrame(tick)
      }
      request = requestAnimationFrame(tick)
    })
  }

  light({ attend, safe, wrong = [], places }: Lights): void {
    this.rims.forEach((rim, p) => {
      const kind = wrong.includes(p)
        ? 'wrong'
        : attend.includes(p)
          ? 'attend'
          : safe.includes(p)
            ? 'safe'
            : undefined
      rim.visible = kind !== undefined
      if (kind) rim.material = this.rimMaterials[kind]
    })
    for (const ring of this.rings.values()) ring.visible = false
    for (const slot of places) this.ringAt(slot).visible = true
    this.draw()
  }

  /** Colours of the theme for what leads the eye. */
  tint(colours: Readonly<Record<keyof typeof RIM_COLOURS, string>>): void {
    for (const kind of ['attend', 'safe', 'wrong'] as const)
      this.rimMaterials[kind].color = new Color(colours[kind])
    this.draw()
  }

  /** Turns both views away from their hold, in radians about the vertical and the horizontal. */
  peek(yaw: number, pitch: number): void {
    this.root.rotation.set(pitch, yaw, 0)
    this.draw()
  }

  swap(swapped: boolean): void {
    this.swapped = swapped
    this.draw()
  }

  resize(width: number, height: number): void {
    this.renderer.setSize(width, height, false)
    this.draw()
  }

  /** Where a window lies in the canvas, in CSS pixels from the top left. */
  rectangle(name: WindowName): Rectangle {
    const size = this.renderer.getSize(new Vector2())
    return windowRectangle(name, size.x, size.y, this.swapped)
  }

  /** What lies under a point of the canvas, in CSS pixels from its top left. */
  hit(x: number, y: number): Hit | undefined {
    const met = this.meet(x, y, this.bodies)
    if (!met?.face) return undefined
    const { first, face, window } = met
    const piece = this.bodies.indexOf(first.object as Mesh)
    const point = this.held.worldToLocal(first.point.clone())
    const normal = face.normal.clone().applyQuaternion(this.pieces[piece].quaternion)
    return {
      piece,
      window,
      point: [point.x, point.y, point.z],
      normal: [normal.x, normal.y, normal.z],
    }
  }

  /** The slot of what is drawn there, a piece or a blank home. */
  slotAt(x: number, y: number): number | undefined {
    const { state } = this
    if (!state) return undefined
    const shown = this.bodies.filter((_, p) => this.pieces[p].visible)
    const blanks = [...this.blanks].filter(([, { visible }]) => visible)
    const met = this.meet(x, y, [...shown, ...blanks.map(([, blank]) => blank)])
    if (!met) return undefined
    const blank = blanks.find(([, each]) => each === met.first.object)
    if (blank) return blank[0]
    const piece = this.bodies.indexOf(met.first.object as Mesh)
    return this.puzzle.slot[24 * piece + state[piece]]
  }

  /** The nearest of some things under a point of the picture, and the window that it is seen in. */
  private meet(x: number, y: number, among: readonly Mesh[]) {
    for (const window of WINDOW_NAMES) {
      const area = this.rectangle(window)
      const u = ((x - area.x) / area.width) * 2 - 1
      const v = 1 - ((y - area.y) / area.height) * 2
      if (Math.abs(u) > 1 || Math.abs(v) > 1) continue
      this.aim(window)
      const ray = new Raycaster()
      ray.setFromCamera(new Vector2(u, v), this.cameras[window])
      const [first] = ray.intersectObjects([...among], false)
      return first && { first, face: first.face, window }
    }
    return undefined
  }

  /** The turn whose first instant follows a drag best, or undefined if none does. */
  turnFor(state: State, hit: Hit, drag: readonly [number, number]): Turn | undefined {
    const { puzzle } = this
    const length = Math.hypot(...drag)
    let best: Turn | undefined
    let bestMatch = LEAST_MATCH
    for (const turn of puzzle.turns) {
      const grip = puzzle.grips[turn.grip]
      if (turn.whole || grip.name.includes('-')) continue
      if (puzzle.carry[turn.grip][24 * hit.piece + state[hit.piece]] !== IN) continue
      // A layer is not turned by its own face.
      const along =
        grip.axis.reduce((sum, c, i) => sum + c * hit.normal[i], 0) / lengthOf(grip.axis)
      if (Math.abs(along) > MOST_ALONG) continue
      const full = 360 / grip.unitDegrees
      const sign = turn.amount > full / 2 ? -1 : 1
      if (turn.amount === full / 2 && grip.amounts.length > 1) continue
      const [x, y] = this.drift(hit, grip, sign)
      const match = (x * drag[0] + y * drag[1]) / (Math.hypot(x, y) * length)
      // Of two names for one slab the first, a face letter, is kept.
      if (match > bestMatch + 1e-6) {
        best = turn
        bestMatch = match
      }
    }
    return best
  }

  /** How far a turn would move a point on screen in its first instant: x right, y down. */
  private drift(
    { window: name, point }: Hit,
    { axis, core }: Puzzle['grips'][number],
    sign: number,
  ): readonly [number, number] {
    const at = new Vector3(...point)
    const arm = at.clone().sub(new Vector3(...this.puzzle.cores[core]))
    const move = new Vector3(...axis).cross(arm).multiplyScalar(-sign * 0.05)
    this.aim(name)
    const toScreen = (v: Vector3) => this.held.localToWorld(v.clone()).project(this.cameras[name])
    const [a, b] = [toScreen(at), toScreen(at.clone().add(move))]
    const area = this.rectangle(name)
    return [(b.x - a.x) * area.width, (a.y - b.y) * area.height]
  }

  /** One window, for what is written and drawn over it. */
  eye(name: WindowName): Eye {
    this.aim(name)
    const area = this.rectangle(name)
    const camera = this.cameras[name]
    const from = this.held.worldToLocal(camera.position.clone())
    return {
      from: [from.x, from.y, from.z],
      flat: (v) => {
        this.aim(name)
        const at = this.held.localToWorld(new Vector3(...v)).project(camera)
        return [area.x + ((at.x + 1) / 2) * area.width, area.y + ((1 - at.y) / 2) * area.height]
      },
      inside: ([x, y]) => [
        MathUtils.clamp(x, area.x + LETTER_MARGIN.side, area.x + area.width - LETTER_MARGIN.side),
        MathUtils.clamp(y, area.y + LETTER_MARGIN.edge, area.y + area.height - LETTER_MARGIN.edge),
      ],
      sees: (piece, point) => {
        this.aim(name)
        const at = this.held.localToWorld(new Vector3(...point))
        const ray = new Raycaster(camera.position, at.sub(camera.position).normalize())
        const [first] = ray.intersectObjects(this.bodies, false)
        return first !== undefined && this.bodies.indexOf(first.object as Mesh) === piece
      },
    }
  }

  private aim(name: WindowName): void {
    const area = this.rectangle(name)
    const camera = this.cameras[name]
    camera.aspect = area.width / Math.max(1, area.height)
    // The sphere around the puzzle fits the shorter side, with a little air.
    const radius = this.puzzle.radius * 1.06 * (1 + 0.6 * this.apart)
    const half = (FIELD_OF_VIEW * Math.PI) / 360
    const narrow = Math.atan(Math.tan(half) * Math.min(1, camera.aspect))
    const eye = new Vector3(...eyeOf(name, this.puzzle.definition)).setLength(
      radius / Math.sin(narrow),
    )
    camera.position.copy(eye)
    camera.lookAt(0, 0, 0)
    camera.updateProjectionMatrix()
    camera.updateMatrixWorld()
    this.root.updateMatrixWorld()
  }

  private draw(): void {
    cancelAnimationFrame(this.frame)
    this.frame = requestAnimationFrame(() => this.render())
  }

  private render(): void {
    const { height } = this.renderer.getSize(new Vector2())
    this.renderer.setScissorTest(false)
    this.renderer.clear()
    this.renderer.setScissorTest(true)
    for (const name of WINDOW_NAMES) {
      this.aim(name)
      const area = this.rectangle(name)
      const bottom = height - area.y - area.height
      this.renderer.setViewport(area.x, bottom, area.width, area.height)
      this.renderer.setScissor(area.x, bottom, area.width, area.height)
      this.renderer.render(this.scene, this.cameras[name])
    }
  }

  dispose(): void {
    this.moving?.finish()
    cancelAnimationFrame(this.frame)
    this.clearMarks()
    const own = [...this.bodies, ...this.rims, ...this.rings.values(), ...this.blanks.values()]
    for (const { geometry } of own) geometry.dispose()
    for (const material of [this.body, ...Object.values(this.rimMaterials)]) material.dispose()
    this.renderer.dispose()
  }
}

/** Side by side and equal where there is room; the first one larger where it is narrow. */
export function windowRectangle(
  name: WindowName,
  width: number,
  height: number,
  swapped: boolean,
): Rectangle {
  const isFirst = (name === 'near') !== swapped
  const share = width < 560 ? 0.6 : 0.5
  return isFirst
    ? { x: 0, y: 0, width: width * share, height }
    : { x: width * share, y: 0, width: width * (1 - share), height }
}

const quaternions = MATRICES.map((m) =>
  new Quaternion().setFromRotationMatrix(
    new Matrix4().set(m[0], m[1], m[2], 0, m[3], m[4], m[5], 0, m[6], m[7], m[8], 0, 0, 0, 0, 1),
  ),
)
const quaternionOf = (rotation: number): Quaternion => quaternions[rotation]

/** The mark alone, on nothing. */
function markMaterial(colour: Colour): MeshBasicMaterial {
  const side = 128
  const canvas = document.createElement('canvas')
  canvas.width = canvas.height = side
  const pen = canvas.getContext('2d') as CanvasRenderingContext2D
  pen.translate(side / 2, side / 2)
  pen.scale(side / 2.4, side / 2.4)
  pen.fillStyle = markInk(colour.shade)
  pen.fill(new Path2D(MARK_PATHS[colour.mark]))
  return new MeshBasicMaterial({ map: new CanvasTexture(canvas), transparent: true })
}
