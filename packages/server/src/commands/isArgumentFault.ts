/** Whether `parseArgs` refused what was written behind a command. */
export const isArgumentFault = (error: unknown): error is Error => error instanceof Error && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')
