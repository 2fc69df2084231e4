/** Everything a process needs to know comes from the environment; `npm start` sets it. @throws Error that names what is not set */
export const need = (name: string): string => {
  const value = process.env[name]
  if (!value) throw new Error(`${name} is not set; start with "npm start"`)
  return value
}
