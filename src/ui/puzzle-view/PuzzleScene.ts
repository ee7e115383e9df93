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
  SRGBColorSpace,
  Vector2,
  Vector3,
  WebGLRenderer,
  type BufferGeometry,
} from 'three'
import { colourIn, type Colour, type Scheme } from '@/core/puzzle/colours'
import { IN, type Puzzle, type Turn } from '@/core/puzzle/compile'
import { MATRICES, type Vector } from '@/core/rotation'
import type { State } from '@/core/state'
import { eyeOf, WINDOW_NAMES, type WindowName } from '../camera'
import { markInk, MARK_PATHS } from '../marks'
import { bevelledCell, roundedSquare } from './geometry'

/** Pieces and places (as piece indices) that the eye is led to. */
export interface Lights {
  readonly attend: readonly number[]
  readonly safe: readonly number[]
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
const RIM_COLOURS = { attend: '#f4b44c', safe: '#62c9b8' } as const

export class PuzzleScene {
  private readonly renderer: WebGLRenderer
  private readonly scene = new Scene()
  private readonly root = new Group()
  private readonly pieces: Group[] = []
  private readonly rims: Mesh[][] = []
  private readonly rings: Mesh[][] = []
  private readonly cameras: Record<WindowName, PerspectiveCamera>
  private readonly rimMaterials = {
    attend: new MeshBasicMaterial({ color: RIM_COLOURS.attend }),
    safe: new MeshBasicMaterial({ color: RIM_COLOURS.safe }),
  }
  private materials = new Map<string, MeshLambertMaterial>()
  private readonly stickers: { mesh: Mesh; colour: string }[] = []
  private readonly disposables: { dispose(): void }[] = []
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
    this.scene.add(this.root, new AmbientLight('#ffffff', 2.1))
    for (const name of WINDOW_NAMES) {
      const light = new DirectionalLight('#fff4dc', 1.15)
      const [x, y, z] = eyeOf(name)
      light.position.set(x * 0.4, y * 2, z)
      this.scene.add(light)
    }
    this.build()
    this.paint(scheme, marks)
    canvas.addEventListener('webglcontextrestored', () => this.draw())
  }

  private camera(name: WindowName): PerspectiveCamera {
    const camera = new PerspectiveCamera(FIELD_OF_VIEW, 1, 0.1, 200)
    camera.position.set(...eyeOf(name))
    return camera
  }

  private build(): void {
    const cell = bevelledCell(0.985, 0.07)
    const square = roundedSquare(0.4, 0.1)
    const rim = roundedSquare(0.455, 0.12)
    const ring = roundedSquare(0.47, 0.12, 0.36)
    const body = new MeshLambertMaterial({ color: '#14171f' })
    this.disposables.push(cell, square, rim, ring, body, ...Object.values(this.rimMaterials))
    this.scene.add(this.root)
    this.puzzle.pieces.forEach((piece, p) => {
      const group = new Group()
      for (const [x, y, z] of piece.cells) {
        const mesh = new Mesh(cell, body)
        mesh.position.set(x, y, z)
        group.add(mesh)
      }
      this.rims[p] = []
      this.rings[p] = []
      piece.faces.forEach((face, f) => {
        const sticker = this.onFace(square, body, face, 0.006)
        sticker.userData = { piece: p, face: f }
        this.stickers.push({ mesh: sticker, colour: face.colour })
        const rimMesh = this.onFace(rim, this.rimMaterials.attend, face, 0.003)
        rimMesh.visible = false
        this.rims[p].push(rimMesh)
        group.add(sticker, rimMesh)
        // Rings mark places, so they stay where they are when pieces move.
        const ringMesh = this.onFace(ring, this.rimMaterials.attend, face, 0.05)
        ringMesh.visible = false
        this.rings[p].push(ringMesh)
        this.root.add(ringMesh)
      })
      this.pieces.push(group)
      this.root.add(group)
    })
  }

  /** A flat mesh laid on an outer face, lifted by `lift`. */
  private onFace(
    geometry: BufferGeometry,
    material: MeshLambertMaterial | MeshBasicMaterial,
    face: Puzzle['pieces'][number]['faces'][number],
    lift: number,
  ): Mesh {
    const mesh = new Mesh(geometry, material)
    const middle = new Vector3()
    for (const corner of face.polygon) middle.add(new Vector3(...corner))
    const normal = new Vector3(...face.normal)
    mesh.position.copy(middle.divideScalar(face.polygon.length).addScaledVector(normal, lift))
    const up =
      Math.abs(face.normal[1]) === 1 ? new Vector3(0, 0, -face.normal[1]) : new Vector3(0, 1, 0)
    const right = new Vector3().crossVectors(up, normal)
    mesh.quaternion.setFromRotationMatrix(new Matrix4().makeBasis(right, up, normal))
    return mesh
  }

  /** Colours and marks of a copy. */
  paint(scheme: Scheme, marks: boolean): void {
    const before = this.materials
    this.materials = new Map(scheme.map((colour) => [colour.id, stickerMaterial(colour, marks)]))
    for (const { mesh, colour } of this.stickers)
      mesh.material = this.materials.get(colourIn(scheme, colour).id) as MeshLambertMaterial
    for (const material of before.values()) dispose(material)
    this.draw()
  }

  show(state: State): void {
    this.moving?.finish()
    state.forEach((r, p) => this.pieces[p].quaternion.copy(quaternionOf(r)))
    this.draw()
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
    const moved = this.pieces.flatMap((group, p) =>
      carry[24 * p + from[p]] === IN ? [{ group, start: quaternionOf(from[p]) }] : [],
    )
    const step = new Quaternion()
    const duration = milliseconds * (Math.abs(amount) === 2 ? 1.4 : 1)
    return new Promise((resolve) => {
      const began = performance.now()
      let request = 0
      const finish = () => {
        cancelAnimationFrame(request)
        this.moving = undefined
        to.forEach((r, p) => this.pieces[p].quaternion.copy(quaternionOf(r)))
        this.draw()
        resolve()
      }
      this.moving = { finish }
      const tick = (now: number) => {
        const t = Math.min(1, (now - began) / duration)
        if (t >= 1) return finish()
        const eased = t * t * (3 - 2 * t)
        step.setFromAxisAngle(axis, angle * eased)
        for (const { group, start } of moved) group.quaternion.multiplyQuaternions(step, start)
        this.render()
        request = requestAnimationFrame(tick)
      }
      request = requestAnimationFrame(tick)
    })
  }

  light({ attend, safe, places }: Lights): void {
    this.rims.forEach((meshes, p) => {
      const kind = attend.includes(p) ? 'attend' : safe.includes(p) ? 'safe' : undefined
      for (const mesh of meshes) {
        mesh.visible = kind !== undefined
        if (kind) mesh.material = this.rimMaterials[kind]
      }
    })
    this.rings.forEach((meshes, place) => {
      for (const mesh of meshes) mesh.visible = places.includes(place)
    })
    this.draw()
  }

  /** Colours of the theme for what leads the eye. */
  tint(attend: string, safe: string): void {
    this.rimMaterials.attend.color = new Color(attend)
    this.rimMaterials.safe.color = new Color(safe)
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
    for (const name of WINDOW_NAMES) {
      const area = this.rectangle(name)
      const u = ((x - area.x) / area.width) * 2 - 1
      const v = 1 - ((y - area.y) / area.height) * 2
      if (Math.abs(u) > 1 || Math.abs(v) > 1) continue
      this.aim(name)
      const ray = new Raycaster()
      ray.setFromCamera(new Vector2(u, v), this.cameras[name])
      const [first] = ray.intersectObjects(
        this.stickers.map(({ mesh }) => mesh),
        false,
      )
      if (!first) return undefined
      const { piece, face } = first.object.userData as { piece: number; face: number }
      const point = this.root.worldToLocal(first.point.clone())
      const home = new Vector3(...this.puzzle.pieces[piece].faces[face].normal)
      const normal = home.applyQuaternion(this.pieces[piece].quaternion)
      return {
        piece,
        window: name,
        point: [point.x, point.y, point.z],
        normal: [Math.round(normal.x), Math.round(normal.y), Math.round(normal.z)],
      }
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
      if (grip.axis.reduce((sum, c, i) => sum + c * hit.normal[i], 0) !== 0) continue
      const full = 360 / grip.unitDegrees
      const sign = turn.amount > full / 2 ? -1 : 1
      if (turn.amount === full / 2 && grip.amounts.length > 1) continue
      const [x, y] = this.drift(hit, grip.axis, sign)
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
    axis: Vector,
    sign: number,
  ): readonly [number, number] {
    const at = new Vector3(...point)
    const move = new Vector3(...axis).cross(at).multiplyScalar(-sign * 0.05)
    this.aim(name)
    const toScreen = (v: Vector3) => this.root.localToWorld(v.clone()).project(this.cameras[name])
    const [a, b] = [toScreen(at), toScreen(at.clone().add(move))]
    const area = this.rectangle(name)
    return [(b.x - a.x) * area.width, (a.y - b.y) * area.height]
  }

  private aim(name: WindowName): void {
    const area = this.rectangle(name)
    const camera = this.cameras[name]
    camera.aspect = area.width / Math.max(1, area.height)
    // The sphere around the puzzle fits the shorter side, with a little air.
    const radius = (Math.hypot(...this.puzzle.definition.mechanism.size) / 2) * 1.06
    const half = (FIELD_OF_VIEW * Math.PI) / 360
    const narrow = Math.atan(Math.tan(half) * Math.min(1, camera.aspect))
    const eye = new Vector3(...eyeOf(name)).setLength(radius / Math.sin(narrow))
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
    for (const material of this.materials.values()) dispose(material)
    for (const each of this.disposables) each.dispose()
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

function stickerMaterial(colour: Colour, marks: boolean): MeshLambertMaterial {
  if (!marks) return new MeshLambertMaterial({ color: colour.shade })
  const side = 128
  const canvas = document.createElement('canvas')
  canvas.width = canvas.height = side
  const pen = canvas.getContext('2d') as CanvasRenderingContext2D
  pen.fillStyle = colour.shade
  pen.fillRect(0, 0, side, side)
  pen.translate(side / 2, side / 2)
  pen.scale(side / 2.6, side / 2.6)
  pen.fillStyle = markInk(colour.shade)
  pen.fill(new Path2D(MARK_PATHS[colour.mark]))
  const map = new CanvasTexture(canvas)
  map.colorSpace = SRGBColorSpace
  return new MeshLambertMaterial({ map })
}

function dispose(material: MeshLambertMaterial): void {
  material.map?.dispose()
  material.dispose()
}
