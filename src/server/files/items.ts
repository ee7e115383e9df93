/**
 * A JSON file read as it arrives: lists and objects that are asked for are opened, and their members given one after
 * another; everything else comes whole. How deep and how large that may be is bound while it is read, so that nobody's
 * file costs more memory than one member of it.
 */
import { Tokenizer, TokenType } from '@streamparser/json'
import type { Bounds } from '../../core/plain'
import { BadFile } from './source'

export type Path = readonly (string | number)[]

export interface Item {
  readonly path: Path
  /** On which it begins, from 1. */
  readonly line: number
  /** Of what was opened; its members follow. */
  readonly opened?: 'list' | 'object'
  /** Of what comes whole. */
  readonly value?: unknown
}

export interface Reading {
  /** Whether what lies there is opened, if it is a list or an object. */
  readonly opens: (path: Path) => boolean
  /** How much may come whole there. */
  readonly boundsOf: (path: Path) => Bounds
}

/** Nothing that is a name, a text or a number is longer, in bytes. */
const LONGEST_TOKEN = 4_000_000

const NAMED = [TokenType.STRING, TokenType.NUMBER, TokenType.TRUE, TokenType.FALSE, TokenType.NULL]

interface Frame {
  readonly isList: boolean
  /** Where it is opened. */
  readonly path?: Path
  /** Where it comes whole. */
  readonly value?: unknown[] | Record<string, unknown>
  readonly names: Set<string>
  key: string | number
}

/** @throws BadFile where it is no JSON, or too much comes whole */
export async function* itemsOf(
  bytes: AsyncIterable<Uint8Array>,
  reading: Reading,
): AsyncGenerator<Item> {
  const parser = new ItemParser(reading)
  for await (const piece of bytes) yield* parser.write(piece)
  yield* parser.end()
}

class ItemParser {
  private readonly tokens = new Tokenizer({ stringBufferSize: 64 * 1024 })
  private readonly frames: Frame[] = []
  private found: Item[] = []
  private awaited: 'value' | 'firstValue' | 'name' | 'firstName' | 'colon' | 'comma' | 'end' =
    'value'
  private piece: Uint8Array = new Uint8Array()
  private pieceAt = 0
  private countedTo = 0
  private line = 1
  private tokenAt = 0
  private bounds?: Bounds
  private values = 0
  /** What comes whole now: where it lies, and how many frames are around it. */
  private wholeAt?: { readonly path: Path; readonly line: number; readonly around: number }

  constructor(private readonly reading: Reading) {
    this.tokens.onToken = ({ token, value, offset }) => {
      this.countLines(offset)
      this.tokenAt = offset
      this.take(token, value)
    }
    this.tokens.onError = (error) => {
      throw error instanceof BadFile ? error : this.broken()
    }
  }

  write(piece: Uint8Array): Item[] {
    this.piece = piece
    this.tokens.write(piece)
    this.countLines(this.pieceAt + piece.byteLength)
    this.pieceAt += piece.byteLength
    if (this.pieceAt - this.tokenAt > LONGEST_TOKEN)
      throw new BadFile('file', 'a text in it has no end.', this.line)
    return this.given()
  }

  end(): Item[] {
    if (!this.tokens.isEnded) this.tokens.end()
    if (this.awaited !== 'end') throw this.broken()
    return this.given()
  }

  private given(): Item[] {
    const { found } = this
    this.found = []
    return found
  }

  private broken(): BadFile {
    return new BadFile('file', 'this is not well-formed JSON.', this.line)
  }

  /** Line ends before a place in the file, each counted once. */
  private countLines(until: number): void {
    const end = Math.min(until - this.pieceAt, this.piece.byteLength)
    for (let at = Math.max(this.countedTo - this.pieceAt, 0); at < end; at++)
      if (this.piece[at] === 10) this.line++
    this.countedTo = Math.max(this.countedTo, this.pieceAt + Math.max(end, 0))
  }

  private take(token: TokenType, value: unknown): void {
    const top = this.frames.at(-1)
    switch (this.awaited) {
      case 'firstName':
      case 'name':
        if (this.awaited === 'firstName' && token === TokenType.RIGHT_BRACE) return this.close()
        if (token !== TokenType.STRING || !top) throw this.broken()
        top.key = value as string
        if (top.names.has(top.key))
          throw new BadFile(top.key.slice(0, 40), 'this field is there twice.', this.line)
        if (top.path) top.names.add(top.key)
        this.awaited = 'colon'
        return
      case 'colon':
        if (token !== TokenType.COLON) throw this.broken()
        this.awaited = 'value'
        return
      case 'comma':
        if (token === TokenType.COMMA) {
          if (top?.isList) top.key = Number(top.key) + 1
          this.awaited = top?.isList ? 'value' : 'name'
        } else if (token === (top?.isList ? TokenType.RIGHT_BRACKET : TokenType.RIGHT_BRACE))
          this.close()
        else throw this.broken()
        return
      case 'firstValue':
      case 'value':
        if (this.awaited === 'firstValue' && token === TokenType.RIGHT_BRACKET) return this.close()
        return this.begin(token, value)
      default:
        throw this.broken()
    }
  }

  private get path(): Path {
    const top = this.frames.at(-1)
    return top ? [...(top.path ?? []), top.key] : []
  }

  private begin(token: TokenType, value: unknown): void {
    const isList = token === TokenType.LEFT_BRACKET
    if (!isList && token !== TokenType.LEFT_BRACE) {
      if (!NAMED.includes(token)) throw this.broken()
      this.place(value)
      this.awaited = this.frames.length > 0 ? 'comma' : 'end'
      return
    }
    const frame = { isList, key: isList ? 0 : '', names: new Set<string>() }
    if (!this.wholeAt && this.reading.opens(this.path)) {
      const { path, line } = this
      this.found.push({ path, line, opened: isList ? 'list' : 'object' })
      this.frames.push({ ...frame, path })
    } else {
      const made = isList ? [] : (Object.create(null) as Record<string, unknown>)
      this.place(made)
      this.frames.push({ ...frame, value: made })
    }
    this.awaited = isList ? 'firstValue' : 'firstName'
  }

  /** Puts a value where it belongs: into what comes whole, or out. */
  private place(value: unknown): void {
    const top = this.frames.at(-1)
    if (!this.wholeAt) {
      const { path, line } = this
      if (typeof value !== 'object' || value === null) {
        this.found.push({ path, line, value })
        return
      }
      this.wholeAt = { path, line, around: this.frames.length }
      this.bounds = this.reading.boundsOf(path)
      this.values = 0
      return
    }
    const { depth = 0, values = 0 } = this.bounds ?? {}
    if (++this.values > values) throw this.tooMuch(`there are more than ${values} values in it.`)
    const inside = this.frames.length - this.wholeAt.around
    if (typeof value === 'object' && value !== null && inside >= depth)
      throw this.tooMuch(`lists lie in each other more than ${depth} deep.`)
    if (Array.isArray(top?.value)) top.value.push(value)
    else if (top?.value) top.value[top.key] = value
  }

  private tooMuch(sentence: string): BadFile {
    return new BadFile(pathWords(this.wholeAt?.path ?? []), sentence, this.wholeAt?.line)
  }

  private close(): void {
    const closed = this.frames.pop()
    if (closed?.value && this.wholeAt?.around === this.frames.length) {
      const { path, line } = this.wholeAt
      this.found.push({ path, line, value: closed.value })
      this.wholeAt = undefined
    }
    this.awaited = this.frames.length > 0 ? 'comma' : 'end'
  }
}

/** `copies[3].benches[0]` */
export const pathWords = (path: Path): string =>
  path
    .map((key) => (typeof key === 'number' ? `[${key}]` : `.${key.slice(0, 40)}`))
    .join('')
    .replace(/^\./, '')
