import type { FastifyRequest } from 'fastify'

/**
 * What the log says: warnings and errors, each with the reference that whoever met it was told. It holds no patient data: of an address only the path,
 * of an error nothing in which the database quotes what was sent.
 */
export const LOGGING = {
  level: 'warn',
  serializers: {
    req: ({ id, method, url, ip }: FastifyRequest) => ({ id, method, path: url.split('?')[0] ?? '', ip }),
    err: (error: Error & { readonly code?: string; readonly table?: string; readonly constraint?: string }) => {
      const { name, code, table, constraint, message, stack = '' } = error
      // SQLSTATE classes 22 and 23: the message names the value.
      const isQuoting = code !== undefined && /^2[23]/.test(code)
      return { type: name, code, table, constraint, message: isQuoting ? '' : message, stack: isQuoting ? stack.replace(message, '') : stack }
    },
  },
}
