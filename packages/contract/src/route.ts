import type { Described } from './frozen.js'
import type { TSchema } from 'typebox'

/** What a signed-in account may be allowed to do. Which role may is said by the server alone. */
export const ACTIONS = ['read-patients', 'examine', 'sign', 'refer', 'keep-records', 'judge', 'read-audit', 'manage-people'] as const
export type Action = (typeof ACTIONS)[number]

/** One route of the server: what it takes, what it answers, and what whoever calls it must be allowed to do. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'DELETE'
  /** With its parameters as `:name`. */
  readonly url: string
  readonly summary: string
  readonly may: Action | 'signed-in' | 'anyone'
  /** Status of an answer that is no error; 200 when left out. */
  readonly status?: 201 | 204
  readonly params?: TSchema
  readonly query?: TSchema
  readonly body?: TSchema
  readonly answer: TSchema
}

/** Keeps the exact type of a route. */
export const route = <const R extends Route>(one: R): R => one

type Part<R extends Route, K extends 'params' | 'query' | 'body'> = R[K] extends TSchema ? Described<R[K]> : undefined
export type ParamsOf<R extends Route> = Part<R, 'params'>
export type QueryOf<R extends Route> = Part<R, 'query'>
export type BodyOf<R extends Route> = Part<R, 'body'>
export type AnswerOf<R extends Route> = Described<R['answer']>
